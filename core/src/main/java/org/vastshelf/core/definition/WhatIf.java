package org.vastshelf.core.definition;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutAnswer;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/**
 * A supposition about one pool, applied to the estate without anything being changed.
 *
 * @param pool the pool supposed about
 * @param drives how many drives more, 0 to 99
 * @param driveSize size on their labels
 * @param layout another layout for its first group; empty for the one it has
 * @param drop volumes that would not be there
 * @param thin volumes that would be thin
 */
public record WhatIf(
        String pool, int drives, Bytes driveSize, Optional<Layout> layout, List<String> drop, List<String> thin) {

    private static final int MOST_DRIVES = 99;
    /** An enclosure number that no real enclosure has. */
    private static final int SUPPOSED = 0;

    public WhatIf {
        drop = List.copyOf(drop);
        thin = List.copyOf(thin);
        if (drives < 0 || drives > MOST_DRIVES) {
            throw new IllegalArgumentException("drives is " + drives + ", must be 0 to " + MOST_DRIVES);
        }
    }

    /**
     * The estate as it would be.
     *
     * @throws IllegalArgumentException when the supposition cannot be, with the reason
     */
    public Estate applyTo(Estate estate) {
        Pool found = estate.pools().get(pool);
        if (found == null) {
            throw new IllegalArgumentException("There is no pool '" + pool + "'");
        }
        Estate next = found.isReservation() ? estate : withDrives(estate, found);
        for (String volume : drop) {
            next = next.without(Kinds.VOLUME, volume);
        }
        for (String volume : thin) {
            if (next.volumes().containsKey(volume)) {
                next = next.withVolume(next.volumes().get(volume).withThin(true));
            }
        }
        return next;
    }

    private Estate withDrives(Estate estate, Pool found) {
        DriveGroup group = found.groups().getFirst();
        Drive like = estate.drives().get(group.members().getFirst());
        List<Drive> supposed = IntStream.rangeClosed(1, drives)
                .mapToObj(bay -> Drive.fresh(found.server(), SUPPOSED, bay, driveSize, like.kind())
                        .in(DriveState.IN_USE))
                .toList();
        List<String> members = new ArrayList<>(group.members());
        supposed.forEach(d -> members.add(d.key()));
        DriveGroup next =
                new DriveGroup(layout.orElse(group.layout()), members, group.part(), group.counted(), group.lost());
        Estate with = estate.withDrives(supposed);
        LayoutAnswer answer = LayoutComparison.answer(next.layout(), Ledgers.questionOf(with, found, next));
        if (answer instanceof LayoutAnswer.NotPossible not) {
            throw new IllegalArgumentException(not.reason() + "; " + not.remedy());
        }
        return with.withPool(found.withGroup(0, next));
    }
}
