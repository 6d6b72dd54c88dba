package org.vastshelf.standins.scenario;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Consumer;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.content.Texture;

/** The files that lie on the demo's shares. The same share always gets the same files. */
public final class DemoFiles {

    private static final long NOW = Instant.parse("2026-03-02T08:00:00Z").getEpochSecond();
    private static final long DAY = 86_400;

    private DemoFiles() {}

    /** A folder with its files, in full; folders come before what lies in them. */
    public record DemoFolder(String path, List<DemoFile> files) {}

    public record DemoFile(
            String name, long bytes, String owner, String group, long modified, long accessed, FileKind kind) {

        /** What it holds: a stream of its own, or a copy of another's. */
        public Contents contents() {
            return Contents.of(Texture.of(name).stream((name.hashCode() * 31L + modified) & 0xFFFFFFFFFFFFL), bytes);
        }
    }

    /**
     * How a share looks.
     *
     * @param folders folder names at the top; each gets a folder a year below it
     * @param total logical bytes to aim at
     * @param coldShare share of the files not opened for long
     */
    private record Shape(
            List<String> folders, int files, long total, List<String> endings, double coldShare, String group) {}

    /** Those of homes are named by their people. */
    private static final Map<String, Shape> SHAPES = Map.ofEntries(
            Map.entry(
                    "herbarium",
                    new Shape(
                            List.of("pressings", "types", "loans", "derivatives", "expedition-moss", "expedition-fern"),
                            62_000,
                            Bytes.TIB * 33,
                            List.of("tif", "tif", "tif", "jpg"),
                            0.45,
                            "herbarium-imaging")),
            Map.entry(
                    "film",
                    new Shape(
                            List.of("cuts", "rushes", "timelapse", "school", "archive"),
                            3_800,
                            Bytes.TIB * 14,
                            List.of("mov", "mxf", "mp4", "wav"),
                            0.5,
                            "education-film")),
            Map.entry(
                    "sequences",
                    new Shape(
                            List.of("runs", "assemblies", "reference", "old-runs"),
                            21_000,
                            Bytes.TIB * 20,
                            List.of("fastq", "bam", "fasta", "gz"),
                            0.6,
                            "seed-genomics")),
            Map.entry(
                    "homes",
                    new Shape(
                            List.of(),
                            72_000,
                            Bytes.of(Bytes.GIB * 20_700).value(),
                            List.of("odt", "pdf", "jpg", "mp4", "zip", "ods", "mov"),
                            0.4,
                            "volunteers")),
            Map.entry(
                    "office",
                    new Shape(
                            List.of("finance", "people", "board", "events", "shop", "grants"),
                            38_000,
                            Bytes.GIB * 2_900,
                            List.of("odt", "pdf", "ods", "docx", "xlsx", "pptx"),
                            0.5,
                            "people-finance")),
            Map.entry(
                    "plans",
                    new Shape(
                            List.of("grounds", "glasshouses", "drainage", "paths", "old-wall"),
                            12_000,
                            Bytes.GIB * 1_700,
                            List.of("dwg", "dxf", "pdf", "tif"),
                            0.55,
                            "grounds")),
            Map.entry(
                    "fieldlogs",
                    new Shape(
                            List.of("heath-north", "heath-south", "bog", "ridge"),
                            26_000,
                            Bytes.GIB * 96,
                            List.of("csv", "json", "log", "nc"),
                            0.5,
                            "living-collections")),
            Map.entry(
                    "specimens-db",
                    new Shape(
                            List.of("data", "log", "backup"),
                            160,
                            Bytes.GIB * 2_300,
                            List.of("ibd", "wal", "bak"),
                            0.1,
                            "living-collections")),
            Map.entry(
                    "press",
                    new Shape(
                            List.of("2019", "2020", "2021", "2022", "2023", "2024", "2025"),
                            15_000,
                            Bytes.GIB * 6_400,
                            List.of("jpg", "tif", "psd", "png"),
                            0.75,
                            "education-film")));

    private static final Shape NONE = new Shape(List.of(), 0, 0, List.of("dat"), 0, "");

    /** Hands over every folder of a share, the root first. */
    public static void of(String share, List<String> people, Consumer<DemoFolder> to) {
        Shape shape = SHAPES.getOrDefault(share, NONE);
        boolean homes = share.equals("homes");
        List<String> folders = homes ? people : shape.folders;
        Random random = new Random(share.hashCode() * 31L + 20_260_302);
        to.accept(new DemoFolder("/", List.of()));
        double[] weights = new double[folders.size()];
        double sum = 0;
        for (int i = 0; i < weights.length; i++) {
            weights[i] = 0.35 + random.nextDouble();
            sum += weights[i];
        }
        for (int i = 0; i < weights.length; i++) {
            String top = folders.get(i);
            long bytes = (long) (shape.total * weights[i] / sum);
            if (homes) {
                bytes = (long) (Bytes.GIB * (82 + 54 * random.nextDouble()));
                bytes = top.equals("suki") ? Bytes.GIB * 150 - 4_096 : bytes;
            }
            int files = Math.max(8, (int) (shape.files * weights[i] / sum));
            fill(shape, "/" + top, homes ? top : "", bytes, files, random, to);
        }
    }

    private static void fill(
            Shape shape, String top, String owner, long bytes, int files, Random random, Consumer<DemoFolder> to) {
        to.accept(new DemoFolder(top, List.of()));
        int years = 4;
        int done = 0;
        long given = 0;
        for (int year = 0; year < years; year++) {
            int count = year == years - 1 ? files - done : files / years;
            long share = year == years - 1 ? bytes - given : bytes / years;
            done += count;
            given += share;
            to.accept(
                    new DemoFolder(top + "/" + (2023 + year), files(shape, owner, share, count, 2023 + year, random)));
        }
    }

    private static List<DemoFile> files(Shape shape, String owner, long bytes, int count, int year, Random random) {
        double[] sizes = new double[count];
        double sum = 0;
        for (int i = 0; i < count; i++) {
            sizes[i] = Math.exp(random.nextGaussian() * 1.1);
            sum += sizes[i];
        }
        List<DemoFile> files = new java.util.ArrayList<>(count);
        long left = bytes;
        long begin = Instant.parse(year + "-01-01T00:00:00Z").getEpochSecond();
        long span = year == 2026 ? 60 * DAY : 365 * DAY;
        for (int i = 0; i < count; i++) {
            long size = i == count - 1 ? left : Math.min(left, (long) (bytes * (sizes[i] / sum)));
            left -= size;
            String ending = shape.endings.get(random.nextInt(shape.endings.size()));
            long modified = begin + (long) (random.nextDouble() * span);
            boolean cold = random.nextDouble() < shape.coldShare;
            long idle = cold ? (long) (random.nextDouble() * 30 * DAY) : Math.max(0, NOW - modified - DAY);
            long accessed = Math.min(NOW - DAY, modified + (long) (random.nextDouble() * idle));
            String name = String.format("%s-%04d-%05d.%s", year, random.nextInt(10_000), i, ending);
            String by = owner.isEmpty() ? shape.group : owner;
            files.add(new DemoFile(name, size, by, shape.group, modified, accessed, FileKind.of(name)));
        }
        return files;
    }
}
