package org.vastshelf.standins.scenario;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.vastshelf.core.unit.Bytes;

/**
 * What the trust's people save on a day, so that time which passes is time in which something happens. Sizes follow
 * how each share has grown; the same day always brings the same files.
 */
public final class DemoTraffic {

    private DemoTraffic() {}

    /** A file saved at a moment of the day. */
    public record Save(String path, Bytes bytes, Instant at) {}

    /**
     * A share's day.
     *
     * @param yearly bytes gained in a year
     * @param saves files on a working day
     * @param burst every how many days a large run comes in; 1 for every day alike
     */
    private record Habit(long yearly, int saves, int burst, List<String> folders, List<String> endings) {}

    private static Habit habit(String share) {
        return switch (share) {
            case "herbarium" ->
                new Habit(Bytes.TIB * 7, 3, 1, List.of("pressings", "types", "loans"), List.of("tif", "tif", "jpg"));
            case "film" -> new Habit(Bytes.TIB * 3, 2, 5, List.of("rushes", "cuts"), List.of("mov", "mxf"));
            case "sequences" -> new Habit(Bytes.TIB * 6, 2, 4, List.of("runs", "assemblies"), List.of("fastq", "bam"));
            case "office" -> new Habit(Bytes.GIB * 290, 2, 1, List.of("finance", "events", "grants"), List.of("odt"));
            case "plans" -> new Habit(Bytes.GIB * 170, 1, 1, List.of("grounds", "glasshouses"), List.of("dwg"));
            case "fieldlogs" -> new Habit(Bytes.GIB * 40, 2, 1, List.of("bog", "ridge"), List.of("csv", "nc"));
            case "specimens-db" -> new Habit(Bytes.GIB * 230, 1, 1, List.of("backup"), List.of("bak"));
            case "press" -> new Habit(Bytes.GIB * 320, 1, 2, List.of("2025"), List.of("jpg", "tif"));
            default -> new Habit(0, 0, 1, List.of(), List.of());
        };
    }

    /** The saves of one share on one day, in their order; empty for shares without habits. */
    public static List<Save> of(String share, LocalDate day) {
        Habit habit = habit(share);
        boolean rests = day.getDayOfWeek() == DayOfWeek.SATURDAY || day.getDayOfWeek() == DayOfWeek.SUNDAY;
        if (habit.saves == 0 || rests) {
            return List.of();
        }
        Random random = new Random(share.hashCode() * 1_000_003L + day.toEpochDay());
        boolean bursts = habit.burst == 1 || day.toEpochDay() % habit.burst == 0;
        double weight = habit.burst == 1 ? 1 : bursts ? 0.6 * habit.burst : 0.4 * habit.burst / (habit.burst - 1);
        double ofDay = habit.yearly / 261.0 * weight;
        List<Save> saves = new ArrayList<>();
        Instant at = day.atTime(9, 0).toInstant(ZoneOffset.UTC);
        for (int i = 0; i < habit.saves; i++) {
            at = at.plus(Duration.ofMinutes(5 + random.nextInt(100)));
            String folder = habit.folders.get(random.nextInt(habit.folders.size()));
            String ending = habit.endings.get(random.nextInt(habit.endings.size()));
            String path = "/%s/%d/%s-%02d.%s".formatted(folder, day.getYear(), day, i, ending);
            long bytes = Math.max(1, Math.round(ofDay / habit.saves * (0.6 + 0.8 * random.nextDouble())));
            saves.add(new Save(path, Bytes.of(bytes), at));
        }
        return saves;
    }
}
