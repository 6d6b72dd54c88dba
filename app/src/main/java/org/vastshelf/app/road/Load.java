package org.vastshelf.app.road;

import java.util.List;
import java.util.Optional;
import java.util.function.ToLongFunction;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;

/**
 * What is moved, copied or removed: one file, or a folder with all that is in it.
 *
 * @param place where it lies
 * @param epoch of its share
 * @param file the file, if it is one
 * @param tree the folder and those below it; empty for a file
 * @param portions what counts, by folder and owner; takes what it will take on the volume where it goes
 */
record Load(
        TreeRoad.At at,
        RoadStore.Place place,
        Epoch epoch,
        Optional<RoadStore.Found> file,
        List<TreeStore.Branch> tree,
        List<TreeStore.Portion> portions) {

    static Load of(
            TreeRoad.At at,
            RoadStore.Place place,
            Epoch epoch,
            List<TreeStore.Branch> tree,
            List<TreeStore.Portion> portions) {
        return new Load(at, place, epoch, Optional.empty(), tree, portions);
    }

    static Load of(TreeRoad.At at, RoadStore.Place place, Epoch epoch, RoadStore.Found file, Optional<Volume> onto) {
        FileRow row = file.row();
        TreeStore.Portion portion = new TreeStore.Portion(
                at.path().parent(),
                Owner.of(row),
                1,
                row.bytes(),
                onto.map(v -> v.allocatedBytes(file.contents().here())).orElse(row.allocated()),
                onto.isEmpty() && file.lived().common() > 0 ? row.bytes() : 0);
        return new Load(at, place, epoch, Optional.of(file), List.of(), List.of(portion));
    }

    boolean isFolder() {
        return file.isEmpty();
    }

    long files() {
        return sum(TreeStore.Portion::files);
    }

    Bytes bytes() {
        return Bytes.of(sum(TreeStore.Portion::bytes));
    }

    long allocated() {
        return sum(TreeStore.Portion::allocated);
    }

    /** Whether something of it shares units with other files, and goes on doing so where it goes. */
    boolean sharesUnits() {
        return sum(TreeStore.Portion::common) > 0;
    }

    private long sum(ToLongFunction<TreeStore.Portion> figure) {
        return portions.stream().mapToLong(figure).sum();
    }

    /** A path of some file of a portion, when the whole is at another path. */
    FilePath someFile(TreeStore.Portion portion, FilePath whole) {
        return isFolder() ? Trees.below(whole, at.path(), portion.folder()).child("x") : whole;
    }

    /** All paths that folders will have, so that one that would be too long is found before anything happens. */
    void requirePaths(FilePath whole) {
        tree.forEach(folder -> Trees.below(whole, at.path(), folder.path()));
    }

    private void stays(String rule, FilePath folder) {
        throw new Taken(
                "'" + at.path() + "' can't go away: the " + rule + " of '" + folder + "' is about it; end that first");
    }

    /** A rule stays with its path: a folder that has one, or holds one that does, can't go away from under it. */
    void requireNoRule(RuleBook book) {
        if (isFolder()) {
            book.ruleWithin(at.share(), at.path()).ifPresent(rule -> stays("limit", rule.path()));
            book.retaining(at.share(), at.path().child("x")).stream()
                    .map(RetentionRule::folder)
                    .filter(at.path()::equals)
                    .forEach(folder -> stays("retention rule", folder));
            book.retainingBelow(at.share(), at.path()).forEach(rule -> stays("retention rule", rule.folder()));
        }
    }
}
