package org.vastshelf.core.tier;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * What a rule would do.
 *
 * @param because what stays, by the reason
 * @param byFolder by folders of the first level, in the order of their paths
 * @param byAge by age, the youngest first; all ages, whether there is something or not
 */
public record TierPlan(
        FileSum leaving,
        FileSum staying,
        FileSum left,
        Map<Standing, FileSum> because,
        List<Folder> byFolder,
        List<Age> byAge) {

    /** One folder of the first level, with all that lies below it; {@code /} for what lies in the root itself. */
    public record Folder(
            String folder, FileSum leaving, FileSum staying, FileSum left, Map<Standing, FileSum> because) {

        private static Folder of(String path, StandingSum sum) {
            return new Folder(path, sum.leaving(), sum.staying(), sum.left(), TierPlan.because(sum));
        }
    }

    /** Files of one age, by calendar days. */
    public record Age(AgeBand age, FileSum leaving, FileSum staying, FileSum left, Map<Standing, FileSum> because) {

        private static Age of(AgeBand age, StandingSum sum) {
            return new Age(age, sum.leaving(), sum.staying(), sum.left(), TierPlan.because(sum));
        }
    }

    private static Map<Standing, FileSum> because(StandingSum sum) {
        Map<Standing, FileSum> because = new EnumMap<>(Standing.class);
        sum.sums().forEach((standing, files) -> {
            if (standing.stays()) {
                because.put(standing, files);
            }
        });
        return because;
    }

    public static TierPlan of(TierRule rule, AgedFiles files) {
        AgedFiles.Survey survey = files.survey();
        Sorting sorting = new Sorting(survey.today());
        survey.folders().forEach(sorting::folder);
        SortedMap<Long, List<AgedFiles.Cell>> days = new TreeMap<>();
        long used = 0;
        for (AgedFiles.Cell cell : survey.cells()) {
            used += cell.standing() == Standing.LEFT ? 0 : cell.sum().bytes();
            if (cell.standing() == Standing.LEAVES && rule.keepBelow().isPresent()) {
                days.computeIfAbsent(cell.day(), day -> new ArrayList<>()).add(cell);
            } else {
                sorting.add(cell.folder(), cell.day(), cell.standing(), cell.sum());
            }
        }
        long tooMuch = used - rule.keepBelow().map(KeepBelow::mostUsed).orElse(0L);
        coldest(sorting, days, tooMuch, files);
        return sorting.plan();
    }

    /** Whole days, oldest first, as long as they are needed; of the day that is needed in part, one file after the other. */
    private static void coldest(
            Sorting sorting, SortedMap<Long, List<AgedFiles.Cell>> days, long tooMuch, AgedFiles files) {
        long needed = tooMuch;
        for (Map.Entry<Long, List<AgedFiles.Cell>> day : days.entrySet()) {
            long bytes = day.getValue().stream()
                    .mapToLong(cell -> cell.sum().bytes())
                    .sum();
            Standing standing = bytes < needed ? Standing.LEAVES : Standing.ENOUGH;
            day.getValue().forEach(cell -> sorting.add(cell.folder(), cell.day(), standing, cell.sum()));
            if (needed > 0 && bytes >= needed) {
                inPart(sorting, needed, day.getKey(), files);
            }
            needed -= bytes;
        }
    }

    private static void inPart(Sorting sorting, long needed, long day, AgedFiles files) {
        long[] rest = {needed};
        files.ofDay(day, file -> {
            FileSum one = new FileSum(1, file.bytes());
            sorting.add(file.folder(), day, Standing.ENOUGH, FileSum.NONE.minus(one));
            sorting.add(file.folder(), day, Standing.LEAVES, one);
            rest[0] -= file.bytes();
            return rest[0] > 0;
        });
    }

    /** Adds up by folder and by age. */
    private static final class Sorting {

        private final long today;
        private final SortedMap<String, Map<Standing, FileSum>> folders = new TreeMap<>();
        private final Map<AgeBand, Map<Standing, FileSum>> ages = new EnumMap<>(AgeBand.class);

        private Sorting(long today) {
            this.today = today;
            AgeBand.ALL.forEach(age -> ages.put(age, new EnumMap<>(Standing.class)));
        }

        private Map<Standing, FileSum> folder(String path) {
            return folders.computeIfAbsent(path, none -> new EnumMap<>(Standing.class));
        }

        private void add(String folder, long day, Standing standing, FileSum sum) {
            folder(folder).merge(standing, sum, FileSum::plus);
            ages.get(AgeBand.of(today - day)).merge(standing, sum, FileSum::plus);
        }

        private TierPlan plan() {
            StandingSum all =
                    ages.values().stream().map(StandingSum::new).reduce(new StandingSum(Map.of()), StandingSum::plus);
            List<Folder> byFolder = new ArrayList<>();
            folders.forEach((path, sums) -> byFolder.add(Folder.of(path, new StandingSum(sums))));
            List<Age> byAge = AgeBand.ALL.stream()
                    .map(age -> Age.of(age, new StandingSum(ages.get(age))))
                    .toList();
            return new TierPlan(all.leaving(), all.staying(), all.left(), TierPlan.because(all), byFolder, byAge);
        }
    }
}
