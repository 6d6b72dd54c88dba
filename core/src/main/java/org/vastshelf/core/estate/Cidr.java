package org.vastshelf.core.estate;

import java.math.BigInteger;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.regex.Pattern;

/** A range of IP addresses in CIDR notation (RFC 4632 for IPv4, RFC 4291 for IPv6), such as {@code 10.20.0.0/16}. */
public record Cidr(String text) {

    private static final Pattern LITERAL = Pattern.compile("[0-9]{1,3}(\\.[0-9]{1,3}){3}|[0-9A-Fa-f:]*:[0-9A-Fa-f:.]*");

    public Cidr {
        parse(text);
    }

    private record Range(byte[] network, int prefix) {}

    private static Range parse(String text) {
        String[] parts = text.strip().split("/", -1);
        byte[] address = parts.length == 2 ? literal(parts[0]) : new byte[0];
        if (address.length == 0 || !parts[1].matches("[0-9]{1,3}")) {
            throw new IllegalArgumentException(
                    "address range is '" + (text.length() > 60 ? text.substring(0, 60) : text)
                            + "', must be in CIDR notation such as 10.20.0.0/16");
        }
        int prefix = Integer.parseInt(parts[1]);
        int bits = address.length * 8;
        if (prefix > bits) {
            throw new IllegalArgumentException("prefix of '" + text + "' is " + prefix + ", must be 0 to " + bits);
        }
        BigInteger host = new BigInteger(1, address).mod(BigInteger.ONE.shiftLeft(bits - prefix));
        if (host.signum() != 0) {
            throw new IllegalArgumentException(
                    "address range is '" + text + "', must have no bits set after the first " + prefix);
        }
        return new Range(address, prefix);
    }

    /** Bytes of an address literal, empty when it is none; host names are never looked up. */
    private static byte[] literal(String text) {
        if (!LITERAL.matcher(text).matches()) {
            return new byte[0];
        }
        try {
            return InetAddress.getByName(text).getAddress();
        } catch (UnknownHostException notAnAddress) {
            return new byte[0];
        }
    }

    public int prefix() {
        return parse(text).prefix;
    }

    public boolean contains(String address) {
        Range range = parse(text);
        byte[] other = literal(address);
        if (other.length != range.network.length) {
            return false;
        }
        int shift = other.length * 8 - range.prefix;
        return new BigInteger(1, other).shiftRight(shift).equals(new BigInteger(1, range.network).shiftRight(shift));
    }
}
