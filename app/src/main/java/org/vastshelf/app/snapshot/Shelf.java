package org.vastshelf.app.snapshot;

import java.util.BitSet;
import java.util.Collection;
import java.util.List;
import java.util.NavigableSet;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.snapshot.HeldBlocks;
import org.vastshelf.core.snapshot.HeldBytes;

/** The snapshots of a volume, oldest first, and what they hold by their positions. */
record Shelf(Volume volume, List<Taken> taken, HeldBytes held) {

    static Shelf of(Volume volume, List<Taken> taken, List<HeldBlocks.Count> held) {
        return new Shelf(volume, taken, HeldBlocks.sums(numbers(taken), held));
    }

    static NavigableSet<Integer> numbers(List<Taken> taken) {
        return taken.stream().map(Taken::number).collect(Collectors.toCollection(TreeSet::new));
    }

    void require(int number) {
        if (taken.stream().noneMatch(t -> t.number() == number)) {
            throw new NotFound("snapshot of volume " + volume.name(), String.valueOf(number));
        }
    }

    String name(int number) {
        return taken.stream()
                .filter(t -> t.number() == number)
                .findFirst()
                .map(Taken::name)
                .orElse("");
    }

    /** Where these lie among all. */
    BitSet positions(Collection<Integer> numbers) {
        BitSet positions = new BitSet();
        for (int i = 0; i < taken.size(); i++) {
            positions.set(i, numbers.contains(taken.get(i).number()));
        }
        return positions;
    }
}
