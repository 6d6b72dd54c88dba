package org.vastshelf.app.kit;

import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Volume;

/**
 * What part of the estate a page is about: all of it, a file server, a pool or a volume.
 *
 * @param server empty for the whole estate
 */
public record Scope(String server, String pool, String volume) {

    public static final Scope ESTATE = new Scope("", "", "");

    /** The scope that a name stands for; volumes first, since they are chosen most. */
    public static Scope of(Estate estate, String name) {
        Volume volume = estate.volumes().get(name);
        String poolName = volume == null ? name : volume.pool();
        Pool pool = estate.pools().get(poolName);
        if (pool != null) {
            return new Scope(pool.server(), pool.name(), volume == null ? "" : name);
        }
        return estate.servers().containsKey(name) ? new Scope(name, "", "") : ESTATE;
    }

    /** The narrowest name, for links; empty for the estate. */
    public boolean isEstate() {
        return equals(ESTATE);
    }

    public String name() {
        return !volume.isEmpty() ? volume : !pool.isEmpty() ? pool : server;
    }

    public boolean covers(Pool other) {
        return (server.isEmpty() || server.equals(other.server())) && (pool.isEmpty() || pool.equals(other.name()));
    }

    public boolean covers(Estate estate, Volume other) {
        return Optional.ofNullable(estate.pools().get(other.pool()))
                        .filter(this::covers)
                        .isPresent()
                && (volume.isEmpty() || volume.equals(other.name()));
    }
}
