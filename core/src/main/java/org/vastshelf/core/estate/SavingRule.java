package org.vastshelf.core.estate;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.saving.Cut;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.time.ScheduleWords;

/**
 * What a volume keeps only once, and packs, so that its files take less.
 *
 * @param aim what becomes of files
 * @param cut where files are cut into units
 * @param unitBytes length of a unit, a power of two from 4 KiB to 128 KiB
 * @param leastDays files are taken in that were not changed for so many whole days, 0 to 3,650
 * @param exceptKinds kinds that stay as they are
 * @param exceptNames patterns of names that stay as they are, at most 100 of at most 60 characters
 * @param exceptPlaces folders that stay as they are, at most 100
 * @param when at most once an hour
 * @param hours a run rests after so many and goes on with the next one, 1 to 168
 * @param mibps at most so many MiB a second are read, 1 to 1,000,000
 */
public record SavingRule(
        String volume,
        Aim aim,
        Cut cut,
        int unitBytes,
        int leastDays,
        Set<FileKind> exceptKinds,
        List<String> exceptNames,
        List<SharePlace> exceptPlaces,
        Schedule when,
        int hours,
        int mibps)
        implements Rule {

    /** What becomes of files. */
    public enum Aim {
        ONCE("keep equal units once", true, false),
        PACKED("pack files", false, true),
        BOTH("keep equal units once, packed", true, true),
        /** What was taken in gets blocks of its own again. */
        NOTHING("give all files blocks of their own", false, false);

        private final String title;
        private final boolean once;
        private final boolean packs;

        Aim(String title, boolean once, boolean packs) {
            this.title = title;
            this.once = once;
            this.packs = packs;
        }

        public String title() {
            return title;
        }

        /** Whether equal units are kept once. */
        public boolean once() {
            return once;
        }

        /** Whether units are packed. */
        public boolean packs() {
            return packs;
        }
    }

    private static final int USUAL_UNIT = 64 << 10;
    private static final int USUAL_DAYS = 30;
    private static final int USUAL_HOURS = 6;
    private static final int USUAL_MIBPS = 200;
    private static final Schedule EACH_EVENING = new Schedule(Schedule.BEGINNING.withHour(22), "FREQ=DAILY");

    public static final int LEAST_UNIT = 4 << 10;
    public static final int MOST_UNIT = 128 << 10;
    public static final int MOST_DAYS = 3_650;
    public static final int MOST_NAMED = 100;
    public static final int MOST_HOURS = 168;
    public static final int MOST_MIBPS = 1_000_000;
    private static final long DAY = 86_400;

    /** What is usual where nobody says otherwise: films and databases seldom have parts in common, and are left. */
    public static SavingRule usual(String volume) {
        return new SavingRule(
                volume,
                Aim.ONCE,
                Cut.BLOCKS,
                USUAL_UNIT,
                USUAL_DAYS,
                Set.of(FileKind.FILM, FileKind.DATABASE),
                List.of(),
                List.of(),
                EACH_EVENING,
                USUAL_HOURS,
                USUAL_MIBPS);
    }

    public SavingRule {
        exceptKinds = Set.copyOf(exceptKinds);
        exceptNames = List.copyOf(exceptNames);
        exceptPlaces = List.copyOf(exceptPlaces);
        if (Integer.bitCount(unitBytes) != 1) {
            throw new IllegalArgumentException("length of a unit is " + unitBytes + ", must be a power of two");
        }
        between("length of a unit", unitBytes, LEAST_UNIT, MOST_UNIT);
        between("days", leastDays, 0, MOST_DAYS);
        between("number of names", exceptNames.size(), 0, MOST_NAMED);
        between("number of folders", exceptPlaces.size(), 0, MOST_NAMED);
        exceptNames.forEach(
                name -> between("length of the pattern '" + name + "'", name.length(), 1, NamePattern.LONGEST));
        when.atMostEvery(Duration.ofHours(1), "saving");
        between("hours of a run", hours, 1, MOST_HOURS);
        between("MiB a second", mibps, 1, MOST_MIBPS);
    }

    private static void between(String what, long value, long least, long most) {
        if (value < least || value > most) {
            throw new IllegalArgumentException(what + " is " + value + ", must be " + least + " to " + most);
        }
    }

    /** Whether a file is to be taken in. */
    public boolean wants(TieringRule.Facts file, Instant at) {
        return isAbout(file) && at.getEpochSecond() - file.modified() >= leastDays * DAY;
    }

    /** Whether nothing but its age keeps a file from being taken in. */
    public boolean isAbout(TieringRule.Facts file) {
        return file.bytes() > 0
                && !exceptKinds.contains(file.kind())
                && exceptNames.stream()
                        .noneMatch(name -> NamePattern.fits(name, file.path().name()))
                && exceptPlaces.stream().noneMatch(place -> place.holds(file.share(), file.path()));
    }

    @Override
    public Kind<SavingRule> kind() {
        return Kinds.SAVING;
    }

    @Override
    public Kind<?> subject() {
        return Kinds.VOLUME;
    }

    @Override
    public String governs() {
        return volume;
    }

    @Override
    public SavingRule governing(String other) {
        return new SavingRule(
                other, aim, cut, unitBytes, leastDays, exceptKinds, exceptNames, exceptPlaces, when, hours, mibps);
    }

    @Override
    public Optional<Schedule> schedule() {
        return Optional.of(when);
    }

    @Override
    public String title() {
        return "On volume " + volume + " " + aim.title + ", " + ScheduleWords.of(when);
    }

    @Override
    public Optional<String> refusal(Estate estate) {
        return fault(estate)
                .or(() -> estate.find(Kinds.CLONE, volume)
                        .map(clone -> "volume " + volume + " is a clone, and shares what volume " + clone.source()
                                + " has; make it independent first"))
                .or(() -> estate.all(Kinds.PAIR).values().stream()
                        .filter(pair -> pair.copy().equals(volume))
                        .findFirst()
                        .map(pair -> "volume " + volume + " is the copy of volume " + pair.volume()
                                + ", and keeps in common what that one does; give it the rule"));
    }
}
