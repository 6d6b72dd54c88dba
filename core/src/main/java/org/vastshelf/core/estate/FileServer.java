package org.vastshelf.core.estate;

import org.vastshelf.core.unit.Bytes;

/**
 * One NAS system.
 *
 * @param host name by which clients reach it; empty when it has no data address yet
 * @param address its data address; empty when it has none
 * @param managed run as a service, without drives to see
 * @param dark without power
 * @param loadPercent share of its drives' throughput that clients take, 0 to 95; rebuilds get the rest
 */
public record FileServer(
        String name,
        String site,
        String host,
        String address,
        int nodes,
        boolean managed,
        boolean dark,
        int loadPercent) {

    public static final int MOST_LOAD = 95;
    /** Volumes of a managed file server grow by multiples of this. */
    public static final Bytes MANAGED_STEP = Bytes.gib(100);

    public FileServer {
        if (loadPercent < 0 || loadPercent > MOST_LOAD) {
            throw new IllegalArgumentException("client load is " + loadPercent + " %, must be 0 to " + MOST_LOAD);
        }
    }

    /** With power and without load. */
    public static FileServer of(String name, String site, String host, String address, int nodes, boolean managed) {
        return new FileServer(name, site, host, address, nodes, managed, false, 0);
    }

    public boolean isReachable() {
        return !address.isEmpty();
    }

    public FileServer withDark(boolean next) {
        return new FileServer(name, site, host, address, nodes, managed, next, loadPercent);
    }

    public FileServer withLoad(int next) {
        return new FileServer(name, site, host, address, nodes, managed, dark, next);
    }
}
