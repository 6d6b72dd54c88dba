package org.vastshelf.core.failure;

import java.util.List;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.unit.Bytes;

/**
 * For how many members of its pool a hot spare could take over.
 *
 * @param fits members that it could replace
 * @param members all members of the pool's groups
 */
public record SpareFit(Drive spare, int fits, int members) {

    /** All spares of a pool. */
    public static List<SpareFit> of(Estate estate, Pool pool) {
        return estate.drives(pool.spares()).stream()
                .map(spare -> of(estate, pool, spare))
                .toList();
    }

    private static SpareFit of(Estate estate, Pool pool, Drive spare) {
        int fits = 0;
        int members = 0;
        for (DriveGroup group : pool.groups()) {
            for (Drive member : estate.drives(group.members())) {
                members++;
                fits += fits(spare, group.countedOf(member), member) ? 1 : 0;
            }
        }
        return new SpareFit(spare, fits, members);
    }

    /** It has to be of the same kind and hold what counts of the member. */
    static boolean fits(Drive spare, Bytes counted, Drive member) {
        return spare.state() != DriveState.FAILED
                && spare.kind() == member.kind()
                && !counted.isMoreThan(spare.label());
    }

    /** Such as "ready for 3 of 7". */
    public String text() {
        if (spare.state() == DriveState.FAILED) {
            return "failed";
        }
        return fits == members ? "ready" : fits == 0 ? "fits no member" : "ready for " + fits + " of " + members;
    }
}
