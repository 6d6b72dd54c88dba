package org.vastshelf.standins.scenario;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveHealth;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ScrubRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.unit.Bytes;

/** An estate as large as they get: 40 enclosures with 960 drives, 60 pools, 1,000 volumes, each served. */
public final class LargeEstate {

    /** The share with everybody's home. */
    public static final String HOMES = "homes";
    /** The share with most of the files. */
    public static final String ARCHIVE = "archive";

    private static final int LIMITED_BOXES = 200;
    private static final int SERVERS = 5;
    private static final int ENCLOSURES_EACH = 8;
    private static final int BAYS = 24;
    private static final int POOLS_EACH = 12;
    private static final int DRIVES_A_POOL = 14;
    private static final int VOLUMES = 1_000;
    private static final int[] TERABYTES = {8, 12, 16, 20};
    private static final Bytes TB = Bytes.of(1_000_000_000_000L);
    private static final List<Layout> LAYOUTS =
            List.of(Layout.RAID_6, Layout.TERRACED_2, Layout.RAID_TRIPLE, Layout.RAID_10, Layout.RAID_60);

    private LargeEstate() {}

    public static Estate create() {
        Random random = new Random(20_260_302);
        List<FileServer> servers = IntStream.range(0, SERVERS)
                .mapToObj(i -> FileServer.of(name(i), "hall", name(i) + ".example", "10.70." + i + ".10", 2, false))
                .toList();
        List<Enclosure> enclosures = new ArrayList<>();
        List<Drive> drives = new ArrayList<>();
        List<Pool> pools = new ArrayList<>();
        for (int server = 0; server < SERVERS; server++) {
            List<String> bays = rack(name(server), enclosures, drives, random);
            for (int i = 0; i < POOLS_EACH; i++) {
                List<String> mine = bays.subList(i * DRIVES_A_POOL, (i + 1) * DRIVES_A_POOL);
                pools.add(pool(name(server) + "-pool-" + (i + 1), name(server), mine, random));
            }
        }
        Map<String, DriveState> states = new HashMap<>();
        pools.forEach(p -> p.members().forEach(d -> states.put(d, DriveState.IN_USE)));
        List<Volume> volumes = IntStream.range(0, VOLUMES)
                .mapToObj(i -> Volume.plain(
                        volume(i),
                        pools.get(i % pools.size()).name(),
                        Bytes.tib(i < 2 ? 6 : 1 + random.nextInt(6)),
                        true,
                        Volume.DEFAULT_BLOCK,
                        Volume.DEFAULT_ALARM))
                .toList();
        return Estate.EMPTY
                .with(Kinds.SITE, new Site("hall", "The hall"))
                .with(Kinds.SERVER, servers)
                .with(Kinds.ENCLOSURE, enclosures)
                .with(
                        Kinds.DRIVE,
                        drives.stream()
                                .map(d -> d.in(states.getOrDefault(d.key(), DriveState.UNCLAIMED)))
                                .toList())
                .with(Kinds.POOL, pools)
                .with(Kinds.VOLUME, volumes)
                .with(Kinds.SHARE, volumes.stream().map(LargeEstate::share).toList())
                .with(Kinds.LIMIT, limits())
                .with(
                        Kinds.SCRUBBING,
                        pools.stream()
                                .map(p -> new ScrubRule(p.name(), Schedule.of("FREQ=MONTHLY")))
                                .toList());
    }

    private static String volume(int number) {
        return switch (number) {
            case 0 -> HOMES;
            case 1 -> ARCHIVE;
            default -> String.format("volume-%04d", number + 1);
        };
    }

    private static Share share(Volume volume) {
        return new Share(
                volume.name(),
                volume.name(),
                true,
                true,
                true,
                List.of(new AccessRule(AccessRule.Subject.EVERYONE, "", AccessRule.Level.WRITE)),
                List.of(),
                volume.name().equals(HOMES) ? Optional.of(FilePath.ROOT) : Optional.empty());
    }

    private static List<LimitRule> limits() {
        List<LimitRule> limits = new ArrayList<>();
        limits.add(limit(HOMES, FilePath.ROOT, true));
        for (int box = 1; box <= LIMITED_BOXES; box++) {
            limits.add(limit(ARCHIVE, new FilePath("/box-%04d".formatted(box)), false));
        }
        return limits;
    }

    private static LimitRule limit(String share, FilePath folder, boolean eachChild) {
        return new LimitRule(
                share,
                folder,
                eachChild,
                Optional.of(Bytes.gib(9)),
                Optional.empty(),
                LimitRule.DEFAULT_GRACE,
                Optional.of(Bytes.gib(10)));
    }

    private static String name(int server) {
        return "hall-" + (char) ('a' + server);
    }

    private static List<String> rack(String server, List<Enclosure> enclosures, List<Drive> drives, Random random) {
        List<String> keys = new ArrayList<>();
        for (int number = 1; number <= ENCLOSURES_EACH; number++) {
            enclosures.add(new Enclosure(server, number, BAYS, ""));
            Bytes size = TB.times(TERABYTES[random.nextInt(TERABYTES.length)]);
            for (int bay = 1; bay <= BAYS; bay++) {
                Drive drive = new Drive(
                        server,
                        number,
                        bay,
                        size,
                        DriveKind.SPINNING,
                        DriveState.UNCLAIMED,
                        DriveHealth.well(1_000 + random.nextInt(40_000)),
                        "",
                        false,
                        List.of());
                drives.add(drive);
                keys.add(drive.key());
            }
        }
        return keys;
    }

    private static Pool pool(String name, String server, List<String> members, Random random) {
        return new Pool(
                name,
                server,
                List.of(DriveGroup.bulk(LAYOUTS.get(random.nextInt(LAYOUTS.size())), members)),
                List.of(),
                LayoutQuestion.DEFAULT_RESERVE,
                LayoutQuestion.DEFAULT_ALIGN,
                Bytes.ZERO,
                Bytes.ZERO,
                PaceClass.STEADY,
                false);
    }
}
