package org.vastshelf.app.road;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;

/**
 * Lays files into a share that nobody uses yet, as they were elsewhere: owners and times stay. They count as older than
 * all snapshots of their volume.
 */
@Service
public class CloneFiles {

    /** Stands for the volume of shares whose volume is gone; none can have this name. */
    public static final String GONE = "-";

    private static final Epoch BEFORE_ALL = new Epoch(0, 0);

    private final PlacesStore folders;
    private final DeliveryStore rows;
    private final TallyStore tallies;
    private final CloneFilesStore clones;
    private final KeptStore kept;

    CloneFiles(PlacesStore folders, DeliveryStore rows, TallyStore tallies, CloneFilesStore clones, KeptStore kept) {
        this.folders = folders;
        this.rows = rows;
        this.tallies = tallies;
        this.clones = clones;
        this.kept = kept;
    }

    /** A file to be laid. */
    public record Item(FilePath folder, FileRow row, Contents contents) {}

    /** Whether a share of this name has files still, and not only of a volume that is gone. */
    public boolean remembers(String share) {
        return clones.catalogue(share).isPresent() && !clones.isGone(share);
    }

    /** Forgets what lay on a share of this name whose volume is gone. */
    public void free(String share) {
        if (clones.isGone(share)) {
            discard(share);
        }
    }

    /** Forgets what was laid for a share that was never open. */
    public void discard(String share) {
        clones.catalogue(share).ifPresent(catalogue -> {
            clones.keptBy(catalogue).forEach(numbers -> kept.used(numbers, -1));
            clones.remove(catalogue, share);
        });
    }

    /** Lays files, and makes folders, empty ones too. */
    public long lay(String share, String volume, Set<FilePath> made, List<Item> items) {
        clones.begin(share, volume);
        Map<FilePath, RoadStore.Place> places = folders.made(share, made, BEFORE_ALL);
        List<DeliveryStore.Row> laid = items.stream()
                .map(item ->
                        new DeliveryStore.Row(places.get(item.folder), item.row, item.contents, BEFORE_ALL.taken()))
                .toList();
        rows.add(laid);
        tallies.arrived(laid);
        for (Map.Entry<Long, Long> use : laid.stream()
                .flatMap(row -> row.contents().kept().stream())
                .collect(Collectors.groupingBy(n -> n, Collectors.counting()))
                .entrySet()) {
            kept.hold(List.of(use.getKey()));
            kept.used(List.of(use.getKey()), Math.toIntExact(use.getValue()));
        }
        long allocated = laid.stream().mapToLong(row -> row.file().allocated()).sum();
        clones.borrowed(volume, allocated);
        return allocated;
    }
}
