package org.vastshelf.core.invariant;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Hold;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.limit.LimitRule;

/** Every name that something uses is the name of something; everything is kept under its own name. */
final class References {

    private final List<Violation> found = new ArrayList<>();

    private References() {}

    static List<Violation> of(Estate estate) {
        References references = new References();
        references.names(estate);
        references.links(estate);
        references.oneShareForEachVolume(estate);
        return references.found;
    }

    private void names(Estate estate) {
        kept("site", estate.sites(), Site::name);
        kept("file server", estate.servers(), FileServer::name);
        kept("enclosure", estate.enclosures(), Enclosure::key);
        kept("drive", estate.drives(), Drive::key);
        kept("pool", estate.pools(), Pool::name);
        kept("volume", estate.volumes(), Volume::name);
        kept("share", estate.shares(), Share::name);
        kept("limit", estate.limits(), LimitRule::key);
        kept("arrival", estate.arrivals(), (Arrival a) -> a.enclosure().key());
        kept("rebuild", estate.rebuilds(), Rebuild::target);
        kept("scrub", estate.scrubs(), Scrub::pool);
        kept("hold", estate.holds(), Hold::key);
    }

    private <T> void kept(String what, Map<String, T> things, Function<T, String> name) {
        things.forEach((key, thing) -> {
            if (!key.equals(name.apply(thing))) {
                add(what + " " + key, what + " '" + name.apply(thing) + "' is kept as '" + key + "'");
            }
        });
    }

    private void links(Estate estate) {
        estate.servers().values().forEach(s -> known("file server " + s.name(), "site", s.site(), estate.sites()));
        estate.enclosures()
                .values()
                .forEach(e -> known("enclosure " + e.key(), "file server", e.server(), estate.servers()));
        estate.pools().values().forEach(p -> {
            known("pool " + p.name(), "file server", p.server(), estate.servers());
            p.drives().forEach(d -> known("pool " + p.name(), "drive", d, estate.drives()));
        });
        estate.volumes().values().forEach(v -> {
            known("volume " + v.name(), "pool", v.pool(), estate.pools());
            v.movingTo().ifPresent(to -> known("volume " + v.name(), "pool", to, estate.pools()));
        });
        estate.shares().values().forEach(s -> known("share " + s.name(), "volume", s.volume(), estate.volumes()));
        estate.scrubs().values().forEach(s -> known("scrub of " + s.pool(), "pool", s.pool(), estate.pools()));
        estate.rebuilds().values().forEach(r -> {
            known("rebuild of " + r.target(), "pool", r.pool(), estate.pools());
            known("rebuild of " + r.target(), "drive", r.target(), estate.drives());
        });
    }

    /** Files are counted by share, so a second one on the same volume would count them apart. */
    private void oneShareForEachVolume(Estate estate) {
        Map<String, String> served = new HashMap<>();
        estate.shares().values().forEach(share -> {
            String other = served.putIfAbsent(share.volume(), share.name());
            if (other != null) {
                add(
                        "volume " + share.volume() + " served twice",
                        "volume " + share.volume() + " would be served as " + other + " and as " + share.name());
            }
        });
    }

    private void known(String owner, String what, String name, Map<String, ?> there) {
        if (!there.containsKey(name)) {
            add(
                    owner + " " + what + " " + name,
                    owner + " needs " + what + " '" + name + "', which would not be there");
        }
    }

    private void add(String key, String text) {
        found.add(new Violation(key, text));
    }
}
