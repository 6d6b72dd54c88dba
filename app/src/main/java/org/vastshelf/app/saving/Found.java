package org.vastshelf.app.saving;

import java.util.List;
import java.util.Map;
import org.vastshelf.core.saving.Breakdown.By;
import org.vastshelf.core.saving.Breakdown.Group;

/**
 * Where a measurement found what it found.
 *
 * @param groups of each sort those with most that is repeated first, at most 200
 * @param alike files of which most is repeated by others, at most 20
 */
public record Found(Map<By, List<Group>> groups, List<Alike> alike) {

    /**
     * A file that others repeat.
     *
     * @param of its path; empty when it is not there any more
     * @param files how many others repeat something of it
     * @param bytes that they repeat
     * @param paths of the first few of them
     */
    public record Alike(String of, int files, long bytes, List<String> paths) {}

    public boolean isEmpty() {
        return groups.values().stream().allMatch(List::isEmpty);
    }
}
