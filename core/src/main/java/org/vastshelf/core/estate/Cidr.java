package org.vastshelf.core.estate;

import java.math.BigInteger;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.regex.Pattern;

/** A range of IP addresses in CIDR notation (RFC 4632 for IPv4, RFC 4291 for IPv6), such as {@code 10.20.0.0/16}. */
public final class Cidr {

    private static final Pattern LITERAL = Pattern.compile("[0-9]{1,3}(\\.[0-9]{1,3}){3}|[0-9A-Fa-f:]*:[0-9A-Fa-f:.]*");
    private static final int IPV4_BYTES = 4;
    private static final long NO_IPV4 = -1;

    private final String text;
    private final byte[] network;
    private final int prefix;

    public Cidr(String text) {
        Range range = parse(text);
        this.text = text;
        this.network = range.network;
        this.prefix = range.prefix;
    }

    public String text() {
        return text;
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
        return prefix;
    }

    /** Whether an address literal lies in the range. */
    public boolean contains(String address) {
        return network.length == IPV4_BYTES ? containsIpv4(ipv4(address)) : containsIpv6(literal(address));
    }

    private boolean containsIpv4(long address) {
        long mine =
                (network[0] & 0xffL) << 24 | (network[1] & 0xff) << 16 | (network[2] & 0xff) << 8 | network[3] & 0xff;
        return address != NO_IPV4 && (address ^ mine) >>> (32 - prefix) == 0;
    }

    private boolean containsIpv6(byte[] address) {
        int shift = network.length * 8 - prefix;
        return address.length == network.length
                && new BigInteger(1, address).shiftRight(shift).equals(new BigInteger(1, network).shiftRight(shift));
    }

    /** The address as a number, read without making anything, since each operation asks; −1 for other texts. */
    private static long ipv4(String text) {
        long address = 0;
        int parts = 0;
        int part = -1;
        for (int i = 0; i <= text.length(); i++) {
            char c = i == text.length() ? '.' : text.charAt(i);
            if (c == '.') {
                if (part < 0 || part > 255 || ++parts > IPV4_BYTES) {
                    return NO_IPV4;
                }
                address = address << 8 | part;
                part = -1;
            } else if (c >= '0' && c <= '9' && part <= 255) {
                part = Math.max(part, 0) * 10 + c - '0';
            } else {
                return NO_IPV4;
            }
        }
        return parts == IPV4_BYTES ? address : NO_IPV4;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Cidr cidr && cidr.text.equals(text);
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }

    @Override
    public String toString() {
        return text;
    }
}
