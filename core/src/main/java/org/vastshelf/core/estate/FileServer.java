package org.vastshelf.core.estate;

/**
 * One NAS system.
 *
 * @param host name by which clients reach it; empty when it has no data address yet
 * @param address its data address; empty when it has none
 * @param managed run as a service, without drives to see
 */
public record FileServer(String name, String site, String host, String address, int nodes, boolean managed) {

    public boolean isReachable() {
        return !address.isEmpty();
    }
}
