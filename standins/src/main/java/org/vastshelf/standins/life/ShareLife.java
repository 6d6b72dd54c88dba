package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.function.Supplier;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.unit.Bytes;

/**
 * The files of a share of the demo, and how many of them people still open.
 *
 * @param files in the order in which they were last changed
 */
public record ShareLife(String share, List<LivingFile> files, double opened) {

    /** Days after its last save within which an old file was mostly opened for the last time. */
    private static final int SOON_DAYS = 50;

    /**
     * Of each share: what it holds, when that came, who makes it, and how much of it was saved once more in the last
     * month.
     */
    private enum Of {
        HERBARIUM("herbarium", Bytes.TIB * 33, new Ages(0.22, 0.22, 2018, true), Herbarium::new, 0),
        FILM("film", Bytes.TIB * 14, new Ages(0.24, 0.24, 2017, false), Film::new, 0.004),
        SEQUENCES("sequences", Bytes.TIB * 20, new Ages(0.28, 0.28, 2019, false), Sequences::new, 0),
        HOMES("homes", Bytes.GIB * 19_680, new Ages(0.4, 0.2, 2016, false), Homes::new, 0.02),
        OFFICE("office", Bytes.GIB * 1_450, new Ages(0.12, 0.1, 2015, false), Office::ofYears, 0.07),
        PLANS("plans", Bytes.GIB * 1_700, new Ages(0.1, 0.1, 2012, false), Plans::new, 0.03),
        FIELDLOGS("fieldlogs", 0, new Ages(0.4, 0.4, 2019, false), FieldLogs::new, 0),
        DATABASE("specimens-db", 0, new Ages(0.1, 0.1, 2025, false), Database::new, 0),
        PRESS("press", Bytes.GIB * 6_400, new Ages(0.05, 0.1, 2017, false), Press::new, 0.002);

        private final String share;
        private final long total;
        private final Ages ages;
        private final Supplier<ShareMaker> maker;
        private final double rewritten;

        Of(String share, long total, Ages ages, Supplier<ShareMaker> maker, double rewritten) {
            this.share = share;
            this.total = total;
            this.ages = ages;
            this.maker = maker;
            this.rewritten = rewritten;
        }
    }

    /** The files of a share; none of one that the trust does not have. */
    public static ShareLife of(String share, Crew crew) {
        for (Of one : Of.values()) {
            if (one.share.equals(share)) {
                return make(one, crew);
            }
        }
        return new ShareLife(share, List.of(), 0);
    }

    private static ShareLife make(Of of, Crew crew) {
        ShareMaker maker = of.maker.get();
        Filing filing = new Filing(of.share, crew);
        days(of, crew).forEach(day -> maker.save(filing, day));
        maker.found(filing);
        List<LivingFile> files = filing.files();
        for (int i = (int) (files.size() * of.rewritten); i > 0; i--) {
            LivingFile file = files.get((int) (files.size() * Math.sqrt(filing.random.nextDouble())));
            long again = filing.at(of.ages.recent(filing.random), file.owner());
            if (again > file.modified()) {
                file.rewritten(file.owner(), again);
            }
        }
        files.sort(Comparator.comparingLong(LivingFile::modified));
        opened(files, maker.opened(), filing.random);
        return new ShareLife(of.share, files, maker.opened());
    }

    /** Before the last month files were opened too: the newer ones at any time since, the older ones soon after. */
    private static void opened(List<LivingFile> files, double opened, Random random) {
        long begin = Ages.begin().toEpochDay() * 86_400;
        int old = (int) (files.size() * (1 - opened));
        for (int i = 0; i < files.size(); i++) {
            LivingFile file = files.get(i);
            long span = begin - file.modified();
            if (span > 0) {
                double share = random.nextDouble();
                long after = i < old
                        ? (long) Math.min(span, -Math.log(1 - share) * SOON_DAYS * 86_400)
                        : (long) (span * Math.sqrt(share));
                long day = Math.floorDiv(file.modified() + after, 86_400L);
                LocalDate workday = Hours.workday(LocalDate.ofEpochDay(day));
                long at = Hours.moment(random, workday, file.owner());
                if (at > file.modified() && at < begin) {
                    file.readAt(at);
                }
            }
        }
    }

    /** Days on which something was saved, in order; a first filling tells how many there have to be. */
    private static List<LocalDate> days(Of of, Crew crew) {
        ShareMaker trial = of.maker.get();
        Filing filing = new Filing(of.share, crew);
        Random random = new Random(of.share.hashCode());
        List<LocalDate> days = new ArrayList<>();
        while (filing.bytes() < of.total) {
            days.add(random.nextDouble() < of.ages.ofMonth() ? of.ages.recent(random) : of.ages.before(random));
            trial.save(filing, days.getLast());
        }
        days.sort(Comparator.naturalOrder());
        return days;
    }

    /** With a file more, of which the bytes are kept. */
    public void add(RealFile real, Contents contents, Crew crew) {
        int slash = real.path().lastIndexOf('/');
        Staffer owner = crew.named(real.owner(), "");
        long at = Hours.moment(new Random(real.path().hashCode()), Hours.workday(real.day()), owner);
        files.add(
                new LivingFile(real.path().substring(0, slash), real.path().substring(slash + 1), contents, owner, at));
        files.sort(Comparator.comparingLong(LivingFile::modified));
    }

    /** Files by folder, each folder before what lies in it; the root is first. */
    public Map<String, List<LivingFile>> folders() {
        Map<String, List<LivingFile>> folders = new TreeMap<>();
        folders.put("/", new ArrayList<>());
        for (LivingFile file : files) {
            for (String folder = file.folder(); folder.length() > 1; folder = parent(folder)) {
                folders.computeIfAbsent(folder, none -> new ArrayList<>());
            }
            folders.get(file.folder()).add(file);
        }
        return folders;
    }

    private static String parent(String folder) {
        int slash = folder.lastIndexOf('/');
        return slash == 0 ? "/" : folder.substring(0, slash);
    }

    public long bytes() {
        return files.stream().mapToLong(LivingFile::bytes).sum();
    }
}
