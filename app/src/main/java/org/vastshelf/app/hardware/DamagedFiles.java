package org.vastshelf.app.hardware;

import static org.vastshelf.app.store.generated.Tables.SCRUB_FINDING;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.Extents;
import org.vastshelf.core.failure.PoolBlocks.Unhealed;

/** What damaged blocks belong to, found through the layout of drives, volumes and catalogues; kept until the next scrub. */
@Component
public class DamagedFiles {

    private final DSLContext db;
    private final CatalogueStore catalogues;
    private final UsageStore usage;
    private final Extents extents;

    DamagedFiles(DSLContext db, CatalogueStore catalogues, UsageStore usage, Extents extents) {
        this.db = db;
        this.catalogues = catalogues;
        this.usage = usage;
        this.extents = extents;
    }

    /** A damaged block and what it belongs to. */
    public record Finding(String drive, long offset, String belongsTo) {}

    /** What the last scrub of a pool could not heal. */
    public List<Finding> of(String pool) {
        return db.selectFrom(SCRUB_FINDING)
                .where(SCRUB_FINDING.POOL.eq(pool))
                .orderBy(SCRUB_FINDING.DRIVE, SCRUB_FINDING.AT_BYTE)
                .fetch(row -> new Finding(row.getDrive(), row.getAtByte(), row.getBelongsTo()));
    }

    /** Puts the findings of a scrub in place of those of the one before. */
    List<Finding> keep(Estate estate, String pool, List<Unhealed> unhealed) {
        db.deleteFrom(SCRUB_FINDING).where(SCRUB_FINDING.POOL.eq(pool)).execute();
        List<Finding> findings = findings(estate, pool, unhealed);
        findings.forEach(f -> db.insertInto(SCRUB_FINDING)
                .values(pool, f.drive, f.offset, f.belongsTo)
                .execute());
        return findings;
    }

    private List<Finding> findings(Estate estate, String pool, List<Unhealed> unhealed) {
        Usage held = usage.load();
        Map<Long, Extents.Place> places = new HashMap<>();
        for (Unhealed block : unhealed) {
            if (block.address() >= 0) {
                extents.at(estate, held, pool, block.address()).ifPresent(p -> places.put(block.address(), p));
            }
        }
        Map<Extents.Place, String> names = new HashMap<>();
        places.values().stream()
                .map(Extents.Place::volume)
                .distinct()
                .forEach(volume -> names.putAll(names(
                        estate,
                        held,
                        volume,
                        places.values().stream()
                                .filter(p -> p.volume().equals(volume))
                                .toList())));
        return unhealed.stream()
                .map(b -> new Finding(b.drive(), b.offset(), belongsTo(b, places.get(b.address()), names)))
                .toList();
    }

    private static String belongsTo(
            Unhealed block, Extents.@org.jspecify.annotations.Nullable Place place, Map<Extents.Place, String> names) {
        if (block.address() < 0) {
            return "protection only, no file";
        }
        return place == null ? "no volume" : names.get(place);
    }

    /** The files of a volume lie share after share, each in the order of its catalogue; its snapshots follow. */
    private Map<Extents.Place, String> names(Estate estate, Usage held, String volume, List<Extents.Place> places) {
        Map<Extents.Place, String> names = new HashMap<>();
        long begins = 0;
        for (Share share : estate.sharesOn(volume)
                .sorted(Comparator.comparing(Share::name))
                .toList()) {
            Optional<CatalogueStore.Catalogue> catalogue = catalogues.find(share.name());
            if (catalogue.isEmpty()) {
                continue;
            }
            long from = begins;
            CatalogueStore.Laid laid = catalogues.laid(
                    catalogue.get().no(),
                    places.stream()
                            .map(p -> p.offset() - from)
                            .filter(o -> o >= 0)
                            .sorted()
                            .toList());
            places.stream()
                    .filter(p -> laid.paths().containsKey(p.offset() - from))
                    .forEach(p -> names.put(p, share.name() + laid.paths().get(p.offset() - from)));
            begins += laid.length();
        }
        Usage.Held all = held.of(volume);
        places.forEach(p -> names.putIfAbsent(
                p,
                p.offset() < all.used().value()
                        ? "snapshots of volume " + volume
                        : "unused space of volume " + volume));
        return names;
    }
}
