package org.vastshelf.standins.scenario;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Consumer;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.standins.content.Texture;

/** Two million files of the large estate: fifteen thousand homes, one archive, and a few on every other share. */
public final class LargeFiles {

    /** Homes, each with an account of its own. */
    public static final int HOMES = 15_000;

    private static final int FILES_A_HOME = 60;
    private static final int ARCHIVE_FOLDERS = 5_500;
    private static final int FILES_A_FOLDER = 196;
    private static final int FILES_ELSEWHERE = 20;
    private static final long NEWEST = Instant.parse("2026-03-01T18:00:00Z").getEpochSecond();
    private static final int TEN_YEARS = 10 * 365 * 86_400;
    /** Median and spread of sizes, which are lognormal: half of the files are below 60 kB. */
    private static final double LOG_MEDIAN = Math.log(60_000);

    private static final double LOG_SPREAD = 2.4;
    private static final double MOST = 20e9;
    private static final FileKind[] KINDS = FileKind.values();

    private LargeFiles() {}

    /** Name of the person whose home has this number, from 0. */
    public static String person(int number) {
        return "p%05d".formatted(number + 1);
    }

    /** All folders of the share on a volume, each before what lies in it. */
    public static void of(Volume volume, Consumer<DemoFolder> to) {
        Random random = new Random(volume.name().hashCode());
        switch (volume.name()) {
            case LargeEstate.HOMES -> {
                to.accept(new DemoFolder("/", List.of()));
                for (int home = 0; home < HOMES; home++) {
                    String who = person(home);
                    to.accept(new DemoFolder("/" + who, files(random, FILES_A_HOME, who)));
                }
            }
            case LargeEstate.ARCHIVE -> {
                to.accept(new DemoFolder("/", List.of()));
                for (int folder = 0; folder < ARCHIVE_FOLDERS; folder++) {
                    to.accept(new DemoFolder(
                            "/box-%04d".formatted(folder + 1),
                            files(random, FILES_A_FOLDER, person(random.nextInt(HOMES)))));
                }
            }
            default -> to.accept(new DemoFolder("/", archives(random, volume, person(random.nextInt(HOMES)))));
        }
    }

    /** Archives that take 40 to 65 % of the volume. */
    private static List<DemoFile> archives(Random random, Volume volume, String owner) {
        long each = volume.size().value() / 1_000 * (400 + random.nextInt(250)) / FILES_ELSEWHERE;
        return files(random, FILES_ELSEWHERE, owner).stream()
                .map(f -> new DemoFile(
                        f.name(),
                        Contents.of(Texture.ARCHIVE.stream(f.modified()), each),
                        owner,
                        f.group(),
                        f.modified(),
                        f.accessed(),
                        f.modified(),
                        FileKind.ARCHIVE))
                .toList();
    }

    private static List<DemoFile> files(Random random, int count, String owner) {
        List<DemoFile> files = new ArrayList<>(count);
        for (int i = 0; i < count; i++) {
            double size = Math.exp(LOG_MEDIAN + LOG_SPREAD * random.nextGaussian());
            long modified = NEWEST - random.nextInt(TEN_YEARS);
            files.add(new DemoFile(
                    "file-%03d.dat".formatted(i + 1),
                    Contents.of(Texture.UNKNOWN.stream(random.nextLong() >>> 16), Math.round(Math.min(size, MOST))),
                    owner,
                    "staff",
                    modified,
                    Math.min(NEWEST, modified + random.nextInt(TEN_YEARS / 4)),
                    modified,
                    KINDS[random.nextInt(KINDS.length)]));
        }
        return files;
    }
}
