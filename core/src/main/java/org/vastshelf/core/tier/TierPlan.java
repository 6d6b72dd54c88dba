package org.vastshelf.core.tier;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What a rule would do.
 *
 * @param byFolder by folders of the first level, in the order of their paths
 */
public record TierPlan(FileSum leaving, FileSum staying, FileSum left, List<Folder> byFolder) {

    /** One folder of the first level, with all that lies below it; {@code /} for what lies in the root itself. */
    public record Folder(String folder, FileSum leaving, FileSum staying, FileSum left) {}

    public static TierPlan of(TierRule rule, AgedFiles files) {
        AgedFiles.Survey survey = files.survey();
        Map<String, FileSum> leaving = new TreeMap<>();
        if (rule.keepBelow().isEmpty()) {
            survey.mayLeave().forEach(cell -> leaving.merge(cell.folder(), cell.sum(), FileSum::plus));
        } else {
            long used = sum(survey.here()).bytes();
            coldest(leaving, survey.mayLeave(), used - rule.keepBelow().get().mostUsed(), files);
        }
        return told(survey, leaving);
    }

    /** Whole days, oldest first, as long as they are needed; of the day that is needed in part, one file after the other. */
    private static void coldest(
            Map<String, FileSum> leaving, List<AgedFiles.Cell> mayLeave, long tooMuch, AgedFiles files) {
        TreeMap<Long, List<AgedFiles.Cell>> days = new TreeMap<>();
        mayLeave.forEach(cell ->
                days.computeIfAbsent(cell.day(), day -> new ArrayList<>()).add(cell));
        long needed = tooMuch;
        for (Map.Entry<Long, List<AgedFiles.Cell>> day : days.entrySet()) {
            if (needed <= 0) {
                return;
            }
            long bytes = day.getValue().stream()
                    .mapToLong(cell -> cell.sum().bytes())
                    .sum();
            if (bytes >= needed) {
                inPart(leaving, needed, day.getKey(), files);
                return;
            }
            day.getValue().forEach(cell -> leaving.merge(cell.folder(), cell.sum(), FileSum::plus));
            needed -= bytes;
        }
    }

    private static void inPart(Map<String, FileSum> leaving, long needed, long day, AgedFiles files) {
        long[] rest = {needed};
        files.ofDay(day, file -> {
            leaving.merge(file.folder(), new FileSum(1, file.bytes()), FileSum::plus);
            rest[0] -= file.bytes();
            return rest[0] > 0;
        });
    }

    private static TierPlan told(AgedFiles.Survey survey, Map<String, FileSum> leaving) {
        SortedSet<String> names = new TreeSet<>(survey.here().keySet());
        names.addAll(survey.left().keySet());
        List<Folder> folders = new ArrayList<>();
        for (String name : names) {
            FileSum leaves = leaving.getOrDefault(name, FileSum.NONE);
            FileSum stays = survey.here().getOrDefault(name, FileSum.NONE).minus(leaves);
            folders.add(new Folder(name, leaves, stays, survey.left().getOrDefault(name, FileSum.NONE)));
        }
        FileSum leaves = sum(leaving);
        return new TierPlan(leaves, sum(survey.here()).minus(leaves), sum(survey.left()), folders);
    }

    private static FileSum sum(Map<String, FileSum> sums) {
        return sums.values().stream().reduce(FileSum.NONE, FileSum::plus);
    }
}
