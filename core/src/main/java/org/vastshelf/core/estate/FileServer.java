package org.vastshelf.core.estate;

/**
 * One NAS system.
 *
 * @param host name by which clients reach it; empty when it has no data address yet
 * @param address its data address; empty when it has none
 * @param managed run as a service, without drives to see
 * @param dark without power
 * @param loadPercent share of its drives' throughput that clients take, 0 to 95; rebuilds get the rest
 * @param sizes which sizes its volumes can have
 * @param paces what it gives, and takes, in each pace class
 */
public record FileServer(
        String name,
        String site,
        String host,
        String address,
        int nodes,
        boolean managed,
        boolean dark,
        int loadPercent,
        VolumeSizes sizes,
        Paces paces) {

    public static final int MOST_LOAD = 95;

    public FileServer {
        if (loadPercent < 0 || loadPercent > MOST_LOAD) {
            throw new IllegalArgumentException("client load is " + loadPercent + " %, must be 0 to " + MOST_LOAD);
        }
        // Definitions written before the server said these do not name them.
        sizes = sizes == null ? sizes(managed) : sizes;
        paces = paces == null ? Paces.USUAL : paces;
    }

    /** With power and without load. */
    public static FileServer of(String name, String site, String host, String address, int nodes, boolean managed) {
        return new FileServer(name, site, host, address, nodes, managed, false, 0, sizes(managed), Paces.USUAL);
    }

    private static VolumeSizes sizes(boolean managed) {
        return managed ? VolumeSizes.SOLD : VolumeSizes.ANY;
    }

    public boolean isReachable() {
        return !address.isEmpty();
    }

    /** With other terms. */
    public FileServer withTerms(VolumeSizes nextSizes, Paces nextPaces) {
        return new FileServer(name, site, host, address, nodes, managed, dark, loadPercent, nextSizes, nextPaces);
    }

    public FileServer withDark(boolean next) {
        return new FileServer(name, site, host, address, nodes, managed, next, loadPercent, sizes, paces);
    }

    public FileServer withLoad(int next) {
        return new FileServer(name, site, host, address, nodes, managed, dark, next, sizes, paces);
    }
}
