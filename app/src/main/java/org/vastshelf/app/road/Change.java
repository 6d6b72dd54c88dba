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
 */
record Change(
        FileOperation operation,
        Owner owner,
        GateView view,
        Optional<RoadStore.Found> found,
        Optional<Contents> contents,
        Instant now) {

    Optional<FileRow> before() {
        return found.map(RoadStore.Found::row);
    }

    /** The file as it will be. */
    Optional<FileRow> after(Volume volume) {
        String name = operation.path().name();
        long seconds = now.getEpochSecond();
        return contents.map(held -> new FileRow(
                PathBytes.of(name),
                held.length(),
                volume.allocatedBytes(held.length()),
                owner.uid(),
                owner.group(),
                seconds,
                seconds,
                seconds,
                FileKind.of(name)));
    }

    /** Kept bytes that are referred to no more, and those that are from now on. */
    Set<Long> released() {
        return without(keptBefore(), keptAfter());
    }

    Set<Long> taken() {
        return without(keptAfter(), keptBefore());
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
