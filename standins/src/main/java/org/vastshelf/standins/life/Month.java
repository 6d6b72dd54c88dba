package org.vastshelf.standins.life;

import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.gate.FileOperation.Kind;

/**
 * The month before the demo begins, as people lived it: it explains when each file was last saved and last read, and
 * what is gone.
 */
public final class Month {

    /** About so many deeds altogether; those that nothing else asks for are reads. */
    private static final int DEEDS = 500_000;
    /** The demo begins on a Monday at eight. */
    private static final long END = Instant.parse("2026-03-02T07:59:30Z").getEpochSecond();

    private static final long READING = 3_300;

    private final Crew crew;
    private final Map<String, ShareLife> shares;
    private final List<Deed> deeds = new ArrayList<>(DEEDS + DEEDS / 10);
    /** A backup of the database is kept for so many. */
    private static final int NIGHTS = 14;

    private final List<Ghost> ghosts = new ArrayList<>();
    private final List<Past> pasts = new ArrayList<>();
    private final Random random = new Random(20_260_301);

    private Month(Crew crew, Map<String, ShareLife> shares) {
        this.crew = crew;
        this.shares = shares;
    }

    /**
     * Lives the month through; files get the times of what is done to them.
     *
     * @param shares by name
     */
    public static Month of(Crew crew, Map<String, ShareLife> shares, Estate estate) {
        Month month = new Month(crew, shares);
        month.spree();
        month.removals();
        month.saves();
        month.tries(estate);
        month.reads();
        month.deeds.sort(Comparator.comparingLong(Deed::micros));
        return month;
    }

    /** In the order of their times. */
    public List<Deed> deeds() {
        return deeds;
    }

    public List<Ghost> ghosts() {
        return ghosts;
    }

    /** What people's files held before, and files that are gone, as snapshots may still have them. */
    public List<Past> pasts() {
        return pasts;
    }

    private void add(long seconds, Staffer who, String share, Kind kind, String path, long bytes) {
        deeds.add(Deed.of(seconds * 1_000_000 + random.nextInt(1_000_000), who.uid(), share, kind, path, bytes));
    }

    private List<LivingFile> files(String share) {
        ShareLife life = shares.get(share);
        return life == null ? List.of() : life.files();
    }

    /** One morning an account rewrites and deletes more than anybody could. */
    private void spree() {
        Spree.on(crew, files("office"), random, new Spree.Sink() {
            @Override
            public void deed(long seconds, Staffer who, Kind kind, String path, long bytes) {
                add(seconds, who, "office", kind, path, bytes);
            }

            @Override
            public void ghost(Ghost ghost) {
                ghosts.add(ghost);
            }

            @Override
            public void past(Past past) {
                pasts.add(past);
            }
        });
    }

    private void removals() {
        Staffer host = crew.named("dbhost", "living-collections");
        long begun = Ages.begin().toEpochDay() * 86_400;
        for (LocalDate night = Ages.begin().minusDays(NIGHTS);
                night.isBefore(Ages.LAST.minusDays(NIGHTS - 1L));
                night = night.plusDays(1)) {
            long born = Hours.night(random, night);
            long died = Hours.night(random, night.plusDays(NIGHTS));
            long bytes = 95_000_000_000L + random.nextInt(1_000_000_000);
            String path = Database.BACKUP + "/" + Database.copy(night);
            if (born >= begun) {
                add(born, host, "specimens-db", Kind.WRITE, path, bytes);
            }
            if (died >= begun && died < END) {
                add(died, host, "specimens-db", Kind.DELETE, path, bytes);
                ghosts.add(new Ghost("specimens-db", 1, bytes, born, died));
            }
        }
        packing();
        for (String share : List.of("office", "homes", "film", "herbarium", "plans")) {
            clearUp(share);
        }
    }

    /** The readings of two months were packed, and the unpacked ones removed; the last of them came in within the month. */
    private void packing() {
        Staffer stations = crew.named("stations", "living-collections");
        LocalDate last = FieldLogs.RUNNING.minusDays(1);
        YearMonth january = YearMonth.from(last);
        long midnight = last.toEpochDay() * 86_400;
        List<String> folders = FieldLogs.folders(january);
        for (String folder : folders) {
            for (int quarter = 0; quarter < FieldLogs.QUARTERS; quarter++) {
                long came = midnight + quarter * 900L + 30 + random.nextInt(300);
                String path = folder + "/" + last.getDayOfMonth() + "/" + FieldLogs.name(quarter);
                add(came, stations, "fieldlogs", Kind.WRITE, path, READING);
            }
        }
        long ofDay = (long) folders.size() * FieldLogs.QUARTERS;
        long before = (january.lengthOfMonth() - 1) * ofDay;
        YearMonth december = january.minusMonths(1);
        packed(stations, december, new Readings(december.lengthOfMonth() * ofDay, 0));
        packed(stations, january, new Readings(before, 0), new Readings(ofDay, midnight));
    }

    private record Readings(long files, long born) {}

    private void packed(Staffer stations, YearMonth month, Readings... some) {
        long at = Hours.night(random, FieldLogs.packing(month));
        long bytes = 0;
        for (Readings readings : some) {
            ghosts.add(new Ghost("fieldlogs", readings.files, READING, readings.born, at));
            bytes += readings.files * READING;
        }
        add(at, stations, "fieldlogs", Kind.REMOVE_FOLDER, FieldLogs.folder(month), bytes);
    }

    /** Things that were made and thrown away again, and old ones that somebody cleared up. */
    private void clearUp(String share) {
        List<LivingFile> files = files(share);
        for (int i = files.size() / 40; i > 0; i--) {
            LivingFile like = Crew.one(random, files);
            Staffer who = like.owner();
            LocalDate day = Hours.workday(Ages.begin().plusDays(1 + random.nextInt(Ages.MONTH - 3)));
            long died = Hours.moment(random, day, who);
            boolean fleeting = random.nextInt(3) > 0;
            long born = fleeting ? died - 60 - random.nextInt(7_200) : 0;
            String name = (fleeting ? "New " : "Old ") + like.name();
            long bytes = fleeting ? like.bytes() / 3 + 1 : like.bytes();
            String path = like.folder() + "/" + name;
            if (died >= END || born != 0 && born < Ages.begin().toEpochDay() * 86_400) {
                continue;
            }
            if (fleeting) {
                add(born, who, share, Kind.WRITE, path, bytes);
            }
            add(died, who, share, Kind.DELETE, path, 0);
            ghosts.add(new Ghost(share, 1, bytes, born, died));
            Past.like(like, bytes)
                    .ifPresent(held -> pasts.add(new Past(
                            share, like.folder(), name, who, held, fleeting ? born : like.before(died), died)));
        }
    }

    /** Each save that a file still shows; some files had another name at first. */
    private void saves() {
        long begin = Ages.begin().toEpochDay() * 86_400;
        for (ShareLife life : shares.values()) {
            for (LivingFile file : life.files()) {
                if (file.modified() < begin || file.isTold()) {
                    continue;
                }
                boolean renamed = file.kind() == FileKind.DOCUMENT
                        && crew.people().contains(file.owner())
                        && random.nextInt(12) == 0;
                long later = file.modified() + 30 + random.nextInt(600);
                String first = renamed && later < END
                        ? (file.folder().equals("/") ? "" : file.folder()) + "/untitled" + random.nextInt(90)
                                + file.name().substring(file.name().lastIndexOf('.'))
                        : file.path();
                add(file.modified(), file.owner(), life.share(), Kind.WRITE, first, file.bytes());
                if (!first.equals(file.path())) {
                    deeds.add(new Deed(
                            later * 1_000_000 + random.nextInt(1_000_000),
                            file.owner().uid(),
                            life.share(),
                            Kind.MOVE,
                            first,
                            file.path(),
                            file.bytes(),
                            Deed.ALLOWED));
                }
            }
        }
    }

    private void tries(Estate estate) {
        deeds.addAll(Refusals.of(estate, crew, shares, random, END));
    }

    private void reads() {
        int days = (int) Ages.begin()
                .datesUntil(Ages.LAST.plusDays(1))
                .filter(Hours::isWorkday)
                .count();
        Reading reading = new Reading(shares, random, this::add);
        int left = Math.max(0, DEEDS - deeds.size());
        // Some are away, and what is in a folder may be read through before a session is.
        int each = left * 13 / 10 / (days * crew.people().size());
        Ages.begin().datesUntil(Ages.LAST.plusDays(1)).forEach(day -> {
            for (Staffer who : crew.people()) {
                // At weekends there is hardly anybody.
                boolean there = Hours.isWorkday(day) ? random.nextInt(12) > 0 : random.nextInt(40) == 0;
                if (there) {
                    reading.day(who, day, Hours.isWorkday(day) ? each / 2 + random.nextInt(each + 1) : each / 5);
                }
            }
        });
    }
}
