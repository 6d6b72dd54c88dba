package org.vastshelf.core.invariant;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Volume;

/** Every name that something uses is the name of something; everything is kept under its own name. */
final class References {

    private final List<Violation> found = new ArrayList<>();

    private References() {}

    static List<Violation> of(Estate estate) {
        References references = new References();
        references.names(estate);
        references.links(estate);
        references.rules(estate);
        references.coldStores(estate);
        references.tieringRules(estate);
        references.oneShareForEachVolume(estate);
        estate.all(Kinds.CLONE).values().forEach(clone -> references.clone(estate, clone));
        return references.found;
    }

    private void names(Estate estate) {
        Kinds.ALL.forEach(kind -> kept(kind, estate.all(kind)));
    }

    private void kept(Kind<?> kind, Map<String, ?> things) {
        things.forEach((key, thing) -> {
            if (!key.equals(kind.keyOf(thing))) {
                add(kind + " " + key, kind + " '" + kind.keyOf(thing) + "' is kept as '" + key + "'");
            }
        });
    }

    private void rules(Estate estate) {
        Kinds.RULES.forEach(kind -> estate.all(kind)
                .values()
                .forEach(rule -> rule.fault(estate)
                        .ifPresent(fault -> add(
                                kind + " " + rule.governs(),
                                "the " + kind + " of " + rule.governs() + " does not fit: " + fault))));
    }

    private void coldStores(Estate estate) {
        estate.all(Kinds.COLD_STORE)
                .values()
                .forEach(store -> store.fault(estate)
                        .ifPresent(
                                fault -> add("cold store " + store.name(), store.name() + " does not fit: " + fault)));
    }

    private void tieringRules(Estate estate) {
        estate.all(Kinds.TIERING)
                .values()
                .forEach(rule -> rule.fault(estate)
                        .ifPresent(
                                fault -> add("tiering rule " + rule.name(), rule.name() + " does not fit: " + fault)));
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
        estate.all(Kinds.LINK).values().forEach(l -> {
            known("link " + l.key(), "site", l.one(), estate.sites());
            known("link " + l.key(), "site", l.other(), estate.sites());
        });
        estate.all(Kinds.PAIR).values().forEach(p -> {
            known("replica pair " + p.volume(), "volume", p.volume(), estate.volumes());
            known("replica pair " + p.volume(), "volume", p.copy(), estate.volumes());
        });
        estate.all(Kinds.RETENTION)
                .values()
                .forEach(r -> known("retention rule " + r.key(), "share", r.share(), estate.shares()));
        estate.all(Kinds.LEGAL_TAG)
                .values()
                .forEach(t -> known("legal tag " + t.key(), "share", t.share(), estate.shares()));
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

    /** A clone lies where the blocks lie that it shares, and neither they nor it go away meanwhile. */
    private void clone(Estate estate, CloneOf clone) {
        String key = "clone " + clone.volume();
        Volume volume = estate.volumes().get(clone.volume());
        Volume source = estate.volumes().get(clone.source());
        if (volume == null || source == null) {
            known(key, "volume", clone.volume(), estate.volumes());
            known(key, "volume", clone.source(), estate.volumes());
            return;
        }
        boolean beside = volume.pool().equals(source.pool())
                || estate.find(Kinds.PAIR, source.name())
                        .map(pair -> estate.volumes().get(pair.copy()))
                        .filter(copy -> volume.pool().equals(copy.pool()))
                        .isPresent();
        if (!beside || volume.movingTo().isPresent() || source.movingTo().isPresent()) {
            add(
                    key + " blocks",
                    "volume " + volume.name() + " shares blocks with a snapshot of volume " + source.name()
                            + ", and would not lie beside them; make it independent first");
        }
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
