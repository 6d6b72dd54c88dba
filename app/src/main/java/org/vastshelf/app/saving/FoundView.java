package org.vastshelf.app.saving;

import java.util.Arrays;
import java.util.List;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.saving.Breakdown.By;
import org.vastshelf.core.saving.Breakdown.Group;
import org.vastshelf.core.tier.AgeBand;

/** Where a measurement found what it found, in words. */
final class FoundView {

    /** Rows of a sort that are shown. */
    private static final int MOST = 12;

    private final Figures fmt;

    FoundView(Figures fmt) {
        this.fmt = fmt;
    }

    /**
     * Groups of one sort.
     *
     * @param packs whether chunks were packed as well
     * @param more how many others there are; empty for none
     */
    record Sort(String title, List<Row> rows, boolean packs, String more) {}

    /**
     * Files of one group.
     *
     * @param repeated bytes that were read before
     * @param share of its bytes
     * @param part of all that is repeated
     */
    record Row(String name, String files, String bytes, String repeated, String share, String part, String packed) {}

    /** A file that others repeat. */
    record Alike(String of, String files, String bytes, List<String> paths, String more) {}

    /** What was found, by sorts that have more than one group. */
    List<Sort> sorts(Found found, SavingRun run) {
        return Arrays.stream(By.values())
                .filter(by -> !found.groups().get(by).isEmpty())
                .map(by -> sort(by, found.groups().get(by), run.wanted().packing() != Packing.NONE))
                .toList();
    }

    private Sort sort(By by, List<Group> groups, boolean packs) {
        List<Group> ordered = switch (by) {
            case AGE ->
                Arrays.stream(AgeBand.values())
                        .flatMap(band ->
                                groups.stream().filter(group -> group.name().equals(band.name())))
                        .toList();
            case KIND, FOLDER -> groups;
        };
        String title = switch (by) {
            case KIND -> "kind of file";
            case FOLDER -> "outermost folder";
            case AGE -> "not changed for";
        };
        long others = Math.max(0, groups.size() - MOST);
        return new Sort(
                title,
                rows(by, ordered),
                packs,
                others == 0 ? "" : fmt.counted(others, "other") + " with less that is repeated");
    }

    /** What is shown of some groups. */
    List<Row> rows(By by, List<Group> groups) {
        long all = groups.stream().mapToLong(Group::repeated).sum();
        return groups.stream().limit(MOST).map(group -> row(by, group, all)).toList();
    }

    private Row row(By by, Group group, long all) {
        return new Row(
                name(by, group.name()),
                fmt.count(group.files()),
                fmt.size(group.bytes()),
                fmt.size(group.repeated()),
                part(group.repeated(), group.bytes()),
                part(group.repeated(), all),
                fmt.size(group.packed()));
    }

    private String part(long of, long all) {
        return all == 0 ? "" : fmt.percent(of / (double) all);
    }

    private static String name(By by, String name) {
        return switch (by) {
            case KIND -> FileKind.valueOf(name).title();
            case AGE -> AgeBand.valueOf(name).title();
            case FOLDER -> name.isEmpty() ? "all other folders" : name;
        };
    }

    List<Alike> alike(Found found) {
        return found.alike().stream()
                .map(one -> new Alike(
                        one.of().isEmpty() ? "a file that is not there any more" : one.of(),
                        fmt.counted(one.files(), "file"),
                        fmt.size(one.bytes()),
                        one.paths(),
                        one.files() > one.paths().size()
                                ? "and " + fmt.counted(one.files() - one.paths().size(), "other")
                                : ""))
                .toList();
    }
}
