package org.vastshelf.core.estate;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.time.Schedule;

/**
 * Which files of shares leave for a cold store, when, and how they come back.
 *
 * @param rank of several rules that meet a file, the one of the lowest rank decides: 1 to 999, each given once
 * @param store where they go
 * @param places folders of shares, 1 to 100
 * @param by from when age is counted
 * @param olderThanDays files of this age leave, 1 to 36,500
 * @param largerThanBytes files of this size stay; at least 0, since nothing is won by an empty one
 * @param kinds only these; none for all
 * @param exceptPlaces folders that stay, at most 100
 * @param exceptPeople whose files stay, at most 100
 * @param keepBelow where it is given, the coldest leave while more than so many per cent of their volume is used, 1 to 99
 * @param back how they come back
 * @param when it runs by itself; empty for by hand only
 * @param hours a run stops after so many and goes on with the next one, 1 to 168; 0 for when it is through
 * @param mibps at most so many MiB a second leave, up to 1,000,000; 0 for as fast as it goes
 * @param mostBytes at most so many in a run; 0 for any number
 * @param keepDays how long objects stay to which no file refers any more, 0 to 36,500
 */
public record TieringRule(
        String name,
        int rank,
        String store,
        List<SharePlace> places,
        AgeBasis by,
        int olderThanDays,
        long largerThanBytes,
        Set<FileKind> kinds,
        List<SharePlace> exceptPlaces,
        List<String> exceptPeople,
        Optional<Integer> keepBelow,
        ComeBack back,
        Optional<Schedule> when,
        int hours,
        int mibps,
        long mostBytes,
        int keepDays) {

    public static final int MOST_RANK = 999;
    public static final int MOST_DAYS = 36_500;
    public static final int MOST_NAMED = 100;
    public static final int MOST_HOURS = 168;
    public static final int MOST_MIBPS = 1_000_000;
    public static final int MOST_PERCENT = 99;

    public TieringRule {
        Names.require("name", name);
        between("rank", rank, 1, MOST_RANK);
        places = List.copyOf(places);
        kinds = Set.copyOf(kinds);
        exceptPlaces = List.copyOf(exceptPlaces);
        exceptPeople = List.copyOf(exceptPeople);
        between("number of folders", places.size(), 1, MOST_NAMED);
        between("number of folders that stay", exceptPlaces.size(), 0, MOST_NAMED);
        between("number of people whose files stay", exceptPeople.size(), 0, MOST_NAMED);
        between("days", olderThanDays, 1, MOST_DAYS);
        between("largest size that stays", largerThanBytes, 0, Long.MAX_VALUE);
        keepBelow.ifPresent(percent -> between("per cent", percent, 1, MOST_PERCENT));
        when.ifPresent(schedule -> schedule.atMostEvery(Duration.ofMinutes(5), "tiering"));
        between("hours of a run", hours, 0, MOST_HOURS);
        between("MiB a second", mibps, 0, MOST_MIBPS);
        between("most bytes of a run", mostBytes, 0, Long.MAX_VALUE);
        between("days that objects are kept", keepDays, 0, MOST_DAYS);
    }

    private static void between(String what, long value, long least, long most) {
        if (value < least || value > most) {
            throw new IllegalArgumentException(what + " is " + value + ", must be " + least + " to " + most);
        }
    }

    /** What a rule looks at in a file. */
    public record Facts(
            String share, FilePath path, long bytes, FileKind kind, String owner, long modified, long lastUse) {}

    /** Whether a file lies where it looks, and nothing but its age and the room there is keeps it from leaving. */
    public boolean isAbout(Facts file) {
        return holds(places, file)
                && !holds(exceptPlaces, file)
                && file.bytes > largerThanBytes
                && (kinds.isEmpty() || kinds.contains(file.kind))
                && !exceptPeople.contains(file.owner);
    }

    private static boolean holds(List<SharePlace> places, Facts file) {
        for (SharePlace place : places) {
            if (place.holds(file.share, file.path)) {
                return true;
            }
        }
        return false;
    }

    /** Whether a file is old enough, in whole days of 86,400 seconds. */
    public boolean isOldEnough(Facts file, Instant at) {
        long time = by == AgeBasis.LAST_CHANGE ? file.modified : file.lastUse;
        return time <= lastTime(at);
    }

    /** The last moment, in seconds since 1970, at which a file that leaves was used or changed. */
    public long lastTime(Instant at) {
        return at.minus(Duration.ofDays(olderThanDays)).getEpochSecond();
    }

    /** Why there can't be such a rule in the estate as it is. */
    public Optional<String> fault(Estate estate) {
        if (estate.find(Kinds.COLD_STORE, store).isEmpty()) {
            return Optional.of("there is no cold store '" + store + "'");
        }
        for (SharePlace place : places) {
            if (!estate.shares().containsKey(place.share())) {
                return Optional.of("there is no share '" + place.share() + "'");
            }
        }
        return estate.all(Kinds.TIERING).values().stream()
                .filter(other -> other.rank == rank && !other.name.equals(name))
                .findFirst()
                .map(other -> "the rule '" + other.name + "' has the rank " + rank + " already");
    }
}
