package org.vastshelf.app.hardware;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.SurveyStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.failure.Extents;
import org.vastshelf.core.failure.PoolBlocks.Unhealed;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** What damaged blocks belong to, found through the layout of drives, volumes and catalogues; kept until the next scrub. */
@Component
public class DamagedFiles {

    static final String NO_FILE = "protection or a copy, no file";

    private final FindingStore store;
    private final CatalogueStore catalogues;
    private final SurveyStore surveys;
    private final UsageStore usage;
    private final Extents extents;

    DamagedFiles(
            FindingStore store, CatalogueStore catalogues, SurveyStore surveys, UsageStore usage, Extents extents) {
        this.store = store;
        this.catalogues = catalogues;
        this.surveys = surveys;
        this.usage = usage;
        this.extents = extents;
    }

    /** A damaged block and what it belongs to. */
    public record Finding(String drive, long offset, String belongsTo) {}

    /** What the last scrub of a pool could not heal. */
    public List<Finding> of(String pool) {
        return store.of(pool);
    }

    /**
     * Puts the findings of a scrub in place of those of the one before. What lay at a block when it was first found is
     * kept with it: other files lie there some days later.
     */
    List<Finding> keep(Estate estate, String pool, List<Unhealed> unhealed) {
        Map<String, String> first = new HashMap<>();
        of(pool).forEach(f -> first.put(f.drive + " " + f.offset, f.belongsTo));
        List<Finding> findings = findings(estate, pool, unhealed).stream()
                .map(f -> new Finding(f.drive, f.offset, first.getOrDefault(f.drive + " " + f.offset, f.belongsTo)))
                .toList();
        store.replace(pool, findings);
        return findings;
    }

    private List<Finding> findings(Estate estate, String pool, List<Unhealed> unhealed) {
        Map<Unhealed, String> owners = new HashMap<>();
        for (DriveGroup.Part part : DriveGroup.Part.values()) {
            List<Unhealed> here = unhealed.stream()
                    .filter(b -> b.part() == part && b.address() >= 0)
                    .toList();
            if (part == DriveGroup.Part.LEAVING) {
                here.forEach(b -> owners.put(b, "data on their way to other groups"));
            } else if (!here.isEmpty()) {
                owners.putAll(
                        owners(new Part(estate, usage.load(), estate.pools().get(pool), part), here));
            }
        }
        return unhealed.stream()
                .map(b -> new Finding(b.drive(), b.offset(), owners.getOrDefault(b, NO_FILE)))
                .toList();
    }

    /** One part of a pool, with all that says what lies in it. */
    private record Part(Estate estate, Usage held, Pool pool, DriveGroup.Part part) {
        Optional<Boolean> onFast() {
            return pool.isTiered() ? Optional.of(part == DriveGroup.Part.FAST) : Optional.empty();
        }
    }

    private Map<Unhealed, String> owners(Part part, List<Unhealed> blocks) {
        Map<String, Bytes> lengths = new HashMap<>();
        part.estate.volumesOn(part.pool.name()).forEach(v -> lengths.put(v.name(), length(part, v)));
        Map<Unhealed, String> owners = new HashMap<>();
        Map<String, Map<Unhealed, Long>> byVolume = new HashMap<>();
        for (Unhealed block : blocks) {
            extents.at(lengths, block.address())
                    .ifPresentOrElse(
                            place -> byVolume.computeIfAbsent(place.volume(), v -> new HashMap<>())
                                    .put(block, place.offset()),
                            () -> owners.put(block, "no volume"));
        }
        byVolume.forEach((volume, offsets) -> owners.putAll(inVolume(part, volume, offsets)));
        return owners;
    }

    /** What a volume has in a part: files by where they lie; snapshots and unused space are always in bulk. */
    private Bytes length(Part part, Volume volume) {
        if (part.onFast().isEmpty()) {
            return Ledgers.taken(part.held, volume);
        }
        Bytes fast = surveys.onFast(
                catalogues(part.estate, volume.name()).stream()
                        .map(CatalogueStore.Catalogue::no)
                        .toList(),
                part.pool.name());
        return part.onFast().get() ? fast : Ledgers.taken(part.held, volume).minusOrZero(fast);
    }

    private List<CatalogueStore.Catalogue> catalogues(Estate estate, String volume) {
        return estate.sharesOn(volume)
                .map(Share::name)
                .sorted()
                .flatMap(share -> catalogues.find(share).stream())
                .toList();
    }

    /** The files of a volume lie share after share, each in the order of its catalogue. */
    private Map<Unhealed, String> inVolume(Part part, String volume, Map<Unhealed, Long> offsets) {
        Map<Unhealed, String> names = new HashMap<>();
        long begins = 0;
        for (CatalogueStore.Catalogue catalogue : catalogues(part.estate, volume)) {
            long from = begins;
            SurveyStore.Laid laid = surveys.laid(
                    catalogue.no(),
                    part.pool.name(),
                    part.onFast(),
                    offsets.values().stream()
                            .map(o -> o - from)
                            .filter(o -> o >= 0)
                            .distinct()
                            .sorted()
                            .toList());
            offsets.forEach((block, offset) -> Optional.ofNullable(laid.paths().get(offset - from))
                    .ifPresent(path -> names.put(block, catalogue.name() + path)));
            begins += laid.length();
        }
        long snapshots = begins + part.held.of(volume).snapshots().value();
        offsets.forEach((block, offset) -> names.putIfAbsent(
                block, (offset < snapshots ? "snapshots of volume " : "unused space of volume ") + volume));
        return names;
    }
}
