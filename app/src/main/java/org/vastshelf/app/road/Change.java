package org.vastshelf.app.road;

import java.time.Instant;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.GateView;

/**
 * A save or a removal that the gate let pass.
 *
 * @param owner whose the file will be
 * @param contents what it will hold; empty for a removal
 * @param modified when it was last changed, in seconds since 1970
 * @param passing what becomes of its blocks
 */
record Change(
        FileOperation operation,
        Owner owner,
        GateView view,
        Optional<RoadStore.Found> found,
        Optional<Contents> contents,
        Passing passing,
        Epoch epoch,
        long modified,
        Instant now) {

    Optional<FileRow> before() {
        return found.map(RoadStore.Found::row);
    }

    /** The file as it will be. */
    Optional<FileRow> after(Volume volume) {
        String name = operation.path().name();
        long seconds = now.getEpochSecond();
        if (operation.kind().keepsContents()) {
            long here = contents.orElseThrow().here();
            return before().map(row -> row.taking(volume.allocatedBytes(here)));
        }
        return contents.map(held -> new FileRow(
                PathBytes.of(name),
                held.length(),
                volume.allocatedBytes(held.here()),
                owner.uid(),
                owner.group(),
                modified,
                seconds,
                seconds,
                FileKind.of(name)));
    }

    /** The file as snapshots go on showing it. */
    Optional<RoadStore.Found> past() {
        return found.filter(f -> epoch.holds(f.lived().born()));
    }

    /** Since when it will be as it is then. */
    Lived lived() {
        return new Lived(epoch.taken(), passing.next());
    }

    /** Kept bytes that are referred to once less, and those that are once more. */
    Set<Long> released() {
        return past().isPresent() ? Set.of() : without(keptBefore(), keptAfter());
    }

    Set<Long> taken() {
        return past().isPresent() ? keptAfter() : without(keptAfter(), keptBefore());
    }

    private Set<Long> keptBefore() {
        return found.map(f -> f.contents().kept()).orElse(Set.of());
    }

    private Set<Long> keptAfter() {
        return contents.map(Contents::kept).orElse(Set.of());
    }

    private static Set<Long> without(Set<Long> these, Set<Long> those) {
        Set<Long> left = new TreeSet<>(these);
        left.removeAll(those);
        return left;
    }
}
