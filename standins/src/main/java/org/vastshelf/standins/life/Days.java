package org.vastshelf.standins.life;

import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation.Kind;

/**
 * What the trust's people do on each day after the first: the same day always brings the same. How much a share gains
 * follows from how it has grown.
 */
public final class Days {

    private static final LocalDate FIRST = LocalDate.of(2026, 3, 2);
    private static final double WORKDAYS = 252;
    /** Days on which somebody comes back to what was saved on one. */
    private static final int LATER = 6;
    /** What was saved so many days ago is read again on a day: that of the last days, of a month and of two quarters ago. */
    private static final List<Integer> AGO = List.of(LATER, 5, 4, 3, 2, 1, 28, 91, 182);
    /** How likely a file is read again on one of these days. */
    private static final double READ_AGAIN = 0.4;

    /** Days that are known: those to which people come back on the next ones. */
    private static final int KNOWN = 128;

    private final Map<String, Double> each = new ConcurrentHashMap<>();
    private final Map<Saved, List<Act>> known = Collections.synchronizedMap(new LinkedHashMap<>(KNOWN, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Saved, List<Act>> eldest) {
            return size() > KNOWN;
        }
    });

    private record Saved(String share, LocalDate day, Crew crew) {}

    /** New files of a share's day, in the order of their moments. */
    public List<Act> saves(String share, LocalDate day, Crew crew) {
        Saved which = new Saved(share, day, crew);
        List<Act> before = known.get(which);
        List<Act> saves = before == null ? made(share, day, crew) : before;
        known.put(which, saves);
        return saves;
    }

    private List<Act> made(String share, LocalDate day, Crew crew) {
        Optional<DailyLife> life = DailyLife.of(share);
        if (life.isEmpty()) {
            return List.of();
        }
        Filing filing = new Filing(share, day, crew);
        ShareMaker maker = life.get().maker((int) ChronoUnit.DAYS.between(FIRST, day));
        if (life.get().instruments()) {
            maker.daily(filing, day);
        } else if (Hours.isWorkday(day)) {
            double wanted = life.get().yearly(day) / WORKDAYS * burst(share, day);
            double each = this.each.computeIfAbsent(share, none -> mean(life.get(), crew));
            for (int i = times(filing.random, wanted / each); i > 0; i--) {
                maker.save(filing, day);
            }
        }
        return filing.files().stream()
                .sorted(Comparator.comparingLong(LivingFile::modified))
                .map(Act::save)
                .toList();
    }

    /** Some weeks bring much, others little; together as much as always. */
    private static double burst(String share, LocalDate day) {
        int week = Math.floorMod((share.hashCode() >> 4) + (int) (day.toEpochDay() / 7), 4);
        return new double[] {0.5, 1.7, 0.6, 1.2}[week];
    }

    /** A whole number that is on average as large as this. */
    private static int times(Random random, double mean) {
        return (int) mean + (random.nextDouble() < mean - (int) mean ? 1 : 0);
    }

    /** Bytes that one save of a share brings on average. */
    private static double mean(DailyLife life, Crew crew) {
        Filing trial = new Filing(life.share(), crew);
        ShareMaker maker = life.maker(0);
        for (int i = 0; i < life.trials(); i++) {
            maker.save(trial, FIRST);
        }
        return (double) trial.bytes() / life.trials();
    }

    /** What people do with what they saved some days before: read it, name it anew, copy it, throw it away. */
    public List<Act> returns(String share, LocalDate day, Crew crew) {
        Random random = DayRandom.of(share, day);
        List<Act> acts = new ArrayList<>();
        DailyLife.of(share).ifPresent(life -> removals(life, day, acts, random, crew));
        for (int i = 0; i < 3 && isLookedInto(share) && Hours.isWorkday(day); i++) {
            LocalDate before = day.minusDays(1L + random.nextInt(LATER));
            List<Act> saved = before.isBefore(FIRST) ? List.of() : saves(share, before, crew);
            if (!saved.isEmpty()) {
                acts.add(back(Crew.one(random, saved), day, random, crew));
            }
        }
        acts.sort(Comparator.comparing(Act::at));
        return acts;
    }

    /** What people read of what they saved some days before, or long before. */
    public List<Act> reads(String share, LocalDate day, Crew crew, Rhythm.Told told) {
        if (!isLookedInto(share) || !Hours.isWorkday(day)) {
            return List.of();
        }
        Random random = DayRandom.of(share + " read ", day);
        Random moments = DayRandom.of(share + " read at ", day);
        List<Act> acts = new ArrayList<>();
        for (int ago : AGO) {
            LocalDate before = day.minusDays(ago);
            for (Act saved : before.isBefore(FIRST) ? List.<Act>of() : saves(share, before, crew)) {
                double dice = random.nextDouble() / READ_AGAIN;
                if (dice * 1_000 < told.thousandths()
                        || told.large() && dice < 1 && Rhythm.isLarge(new FilePath(saved.path()), day)) {
                    Staffer who = crew.named(saved.person(), "");
                    Instant at = Instant.ofEpochSecond(Hours.moment(moments, day, who));
                    acts.add(new Act(Kind.READ, who.uid(), saved.path(), "", Contents.EMPTY, at));
                }
            }
        }
        acts.sort(Comparator.comparing(Act::at));
        return acts;
    }

    /** Nobody comes back to what instruments hand in. */
    public static boolean isLookedInto(String share) {
        return DailyLife.of(share).filter(life -> !life.instruments()).isPresent();
    }

    private static void removals(DailyLife life, LocalDate day, List<Act> acts, Random random, Crew crew) {
        if (life.instruments()) {
            // They belong to whoever saves there.
            ShareMaker maker = life.maker(0);
            String by = crew.named(maker.instrument(), "living-collections").uid();
            Instant at = Instant.ofEpochSecond(Hours.night(random, day) + 7_200);
            maker.removed(day)
                    .forEach(folder -> acts.add(new Act(Kind.REMOVE_FOLDER, by, folder, "", Contents.EMPTY, at)));
            maker.deleted(day).forEach(file -> acts.add(new Act(Kind.DELETE, by, file, "", Contents.EMPTY, at)));
        }
    }

    private static Act back(Act saved, LocalDate day, Random random, Crew crew) {
        Staffer who = crew.named(saved.person(), "");
        Instant at = Instant.ofEpochSecond(Hours.moment(random, day, who));
        String path = saved.path();
        int dot = path.lastIndexOf('.');
        String other = path.substring(0, dot) + " " + day + path.substring(dot);
        return switch (random.nextInt(8)) {
            case 0 -> new Act(Kind.MOVE, who.uid(), path, other, Contents.EMPTY, at);
            case 1 -> new Act(Kind.DELETE, who.uid(), path, "", Contents.EMPTY, at);
            case 2 -> new Act(Kind.COPY, who.uid(), path, other, Contents.EMPTY, at);
            case 3 -> new Act(Kind.EDIT, who.uid(), path, "", Contents.EMPTY, at);
            default -> new Act(Kind.READ, who.uid(), path, "", Contents.EMPTY, at);
        };
    }
}
