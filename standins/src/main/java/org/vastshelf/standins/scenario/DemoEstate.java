package org.vastshelf.standins.scenario;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.AccessRule.Level;
import org.vastshelf.core.estate.AccessRule.Subject;
import org.vastshelf.core.estate.Cidr;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.ExportRule;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Paces;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.PoolPrice;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.estate.ScrubRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.estate.VolumeSizes;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.unit.Bytes;

/** The estate of the Larkmoor Botanic Trust on its first day. */
public final class DemoEstate {

    private static final Cidr GARDEN = new Cidr("10.20.0.0/16");

    /** What the managed service has and takes; figures of the trust's own invention. */
    private static final Paces NORTHBANK =
            new Paces(new Paces.Terms(23, 2_130), new Paces.Terms(71, 6_040), new Paces.Terms(265, 17_250));

    private static final VolumeSizes NORTHBANK_SIZES = new VolumeSizes(Bytes.gib(96), Bytes.gib(192), Bytes.tib(45));

    /** What its people gain in six weeks is hardly left. */
    private static final Bytes HOMES = Bytes.gib(20_370);

    private DemoEstate() {}

    public static Estate create() {
        return Estate.EMPTY
                .with(Kinds.SITE, sites())
                .with(Kinds.SERVER, servers())
                .with(Kinds.ENCLOSURE, enclosures())
                .with(Kinds.DRIVE, DemoDrives.all())
                .with(Kinds.POOL, pools())
                .with(Kinds.VOLUME, volumes())
                .with(Kinds.SHARE, shares())
                .with(Kinds.LIMIT, limits())
                .with(Kinds.LINK, links())
                .with(Kinds.PAIR, PAIR)
                .withRules(rules());
    }

    /** Pools on spinning drives are read through each month, on different nights. */
    private static List<Rule> rules() {
        return Stream.<Stream<? extends Rule>>of(
                        scrubs().stream(), Nights.VOLUMES.stream().sorted().map(Nights::rule), prices())
                .<Rule>flatMap(rules -> rules)
                .toList();
    }

    /** What a TiB costs the trust in a month; nobody has worked it out for the field station. */
    private static Stream<Rule> prices() {
        return Map.of("oak", "13.4", "elm", "12.9", "yew", "31.5", "ash", "14.1", "reed", "11.8", "tern", "19.7")
                .entrySet()
                .stream()
                .map(of -> new PoolPrice(of.getKey(), new BigDecimal(of.getValue())));
    }

    private static List<Rule> scrubs() {
        return List.of(
                new ScrubRule("oak", new Schedule(LocalDateTime.of(2026, 1, 10, 2, 0), "FREQ=MONTHLY")),
                new ScrubRule("yew", new Schedule(LocalDateTime.of(2026, 1, 17, 2, 0), "FREQ=MONTHLY")));
    }

    private static List<Site> sites() {
        return List.of(
                new Site("glasshouse-hill", "Glasshouse Hill"),
                new Site("saltmarsh-annex", "Saltmarsh Annex"),
                new Site("north-region", "North region"),
                new Site("heath-station", "Heath field station"));
    }

    private static List<Link> links() {
        return List.of(
                Link.between("glasshouse-hill", "saltmarsh-annex", 38, 4).with(38, 4, 0, true),
                Link.between("glasshouse-hill", "north-region", 27, 19),
                Link.between("glasshouse-hill", "heath-station", 3, 41));
    }

    /** The herbarium's copy at the annex. */
    private static final ReplicaPair PAIR = new ReplicaPair(
            "herbarium",
            "replica-herbarium",
            ReplicaPair.Mode.BY_INTERVAL,
            1_440,
            false,
            "herbarium.larkmoor.example",
            "10.20.1.61",
            false,
            false);

    private static List<FileServer> servers() {
        return List.of(
                FileServer.of("fernhill", "glasshouse-hill", "fernhill.larkmoor.example", "10.20.1.10", 2, false),
                FileServer.of("saltmarsh", "saltmarsh-annex", "saltmarsh.larkmoor.example", "10.30.1.10", 1, false),
                FileServer.of("northbank", "north-region", "northbank.larkmoor.example", "10.60.1.10", 2, true)
                        .withTerms(NORTHBANK_SIZES, NORTHBANK),
                FileServer.of("dewpond", "heath-station", "dewpond.larkmoor.example", "10.40.1.10", 1, false));
    }

    private static List<Enclosure> enclosures() {
        return List.of(
                new Enclosure("fernhill", 1, 24, ""),
                new Enclosure("fernhill", 2, 12, ""),
                new Enclosure("fernhill", 3, 12, "newly racked"),
                new Enclosure("saltmarsh", 1, 12, ""),
                new Enclosure("dewpond", 1, 8, ""));
    }

    private static List<String> bays(String server, int enclosure, int first, int last) {
        return IntStream.rangeClosed(first, last)
                .mapToObj(bay -> server + "/" + enclosure + "/" + bay)
                .toList();
    }

    private static Pool pool(String name, Layout layout, List<String> members, List<String> spares, Bytes reserve) {
        String server = members.getFirst().substring(0, members.getFirst().indexOf('/'));
        return new Pool(
                name,
                server,
                List.of(DriveGroup.bulk(layout, members)),
                spares,
                LayoutQuestion.DEFAULT_RESERVE,
                LayoutQuestion.DEFAULT_ALIGN,
                reserve,
                Bytes.ZERO,
                name.equals("yew") || name.equals("sedge") ? PaceClass.SWIFT : PaceClass.STEADY,
                false);
    }

    private static List<Pool> pools() {
        return List.of(
                pool("oak", Layout.RAID_6, bays("fernhill", 1, 1, 8), List.of("fernhill/1/15"), Bytes.tib(2)),
                pool("elm", Layout.RAID_5, bays("fernhill", 1, 9, 14), List.of(), Bytes.tib(1)),
                pool("yew", Layout.RAID_5, bays("fernhill", 1, 17, 19), List.of(), Bytes.ZERO),
                pool("ash", Layout.TERRACED_2, bays("fernhill", 2, 1, 7), List.of(), Bytes.tib(1)),
                pool("reed", Layout.RAID_5, bays("saltmarsh", 1, 1, 7), List.of(), Bytes.ZERO),
                Pool.reservation("tern", "northbank", Bytes.tib(20), PaceClass.STEADY),
                pool("sedge", Layout.RAID_1, bays("dewpond", 1, 4, 5), List.of(), Bytes.ZERO));
    }

    private static Volume volume(String name, String pool, long tebibytes, boolean thin) {
        return volume(name, pool, Bytes.tib(tebibytes), thin);
    }

    private static Volume volume(String name, String pool, Bytes size, boolean thin) {
        return Volume.plain(name, pool, size, thin, Volume.DEFAULT_BLOCK, Volume.DEFAULT_ALARM);
    }

    private static List<Volume> volumes() {
        return List.of(
                volume("herbarium", "oak", 40, true),
                volume("film", "oak", 18, true),
                volume("homes", "elm", HOMES, true),
                volume("office", "elm", 10, true),
                volume("plans", "elm", 8, true),
                volume("specimens-db", "yew", 4, false),
                volume("sequences", "ash", 28, true),
                volume("germination", "ash", 2, true),
                volume("replica-herbarium", "reed", 42, true),
                volume("press", "tern", 12, true),
                volume("fieldlogs", "sedge", 2, false));
    }

    private static AccessRule group(String name, Level level) {
        return new AccessRule(Subject.GROUP, name, level);
    }

    private static AccessRule person(String uid, Level level) {
        return new AccessRule(Subject.PERSON, uid, level);
    }

    private static final AccessRule ALL_READ = new AccessRule(Subject.EVERYONE, "", Level.READ);
    private static final AccessRule ALL_WRITE = new AccessRule(Subject.EVERYONE, "", Level.WRITE);

    private static Share share(String name, boolean smb, boolean nfs, List<AccessRule> access) {
        List<ExportRule> exports = nfs ? List.of(new ExportRule(GARDEN, true)) : List.of();
        return new Share(name, name, smb, nfs, true, access, exports, Optional.empty());
    }

    /** Built for the seed vault's trials; nobody has said yet who may mount it. */
    private static final Share UNFINISHED = new Share(
            "germination",
            "germination",
            false,
            true,
            true,
            List.of(group("seed-genomics", Level.WRITE)),
            List.of(),
            Optional.empty());

    private static List<Share> shares() {
        Map<String, List<AccessRule>> access = Map.of(
                "herbarium", List.of(group("herbarium-imaging", Level.WRITE), person("bram", Level.OWN), ALL_READ),
                "film", List.of(group("education-film", Level.WRITE), group("volunteers", Level.READ)),
                "sequences", List.of(group("seed-genomics", Level.WRITE)));
        return List.of(
                share("herbarium", true, true, access.get("herbarium")),
                share("film", true, false, access.get("film")),
                share("sequences", false, true, access.get("sequences")),
                new Share(
                        "homes", "homes", true, false, true, List.of(ALL_WRITE), List.of(), Optional.of(FilePath.ROOT)),
                share("office", true, false, List.of(ALL_WRITE)),
                share("plans", true, false, List.of(group("grounds", Level.WRITE), ALL_READ)),
                share("fieldlogs", false, true, List.of(group("living-collections", Level.WRITE))),
                share("specimens-db", false, true, List.of(group("living-collections", Level.WRITE))),
                share("press", true, false, List.of(group("education-film", Level.WRITE), ALL_READ)),
                UNFINISHED);
    }

    private static List<LimitRule> limits() {
        return List.of(
                rule("homes", "/", true, 120, 140, 150),
                rule("film", "/", false, 15_000, 15_600, 16_000),
                rule("office", "/", false, 8_000, 0, 9_000),
                new LimitRule(
                        "herbarium",
                        FilePath.ROOT,
                        true,
                        Optional.empty(),
                        Optional.empty(),
                        LimitRule.DEFAULT_GRACE,
                        Optional.empty()));
    }

    private static LimitRule rule(String share, String path, boolean eachChild, long warn, long grace, long stop) {
        return new LimitRule(
                share,
                new FilePath(path),
                eachChild,
                Optional.of(Bytes.gib(warn)),
                grace == 0 ? Optional.empty() : Optional.of(Bytes.gib(grace)),
                Duration.ofDays(7),
                Optional.of(Bytes.gib(stop)));
    }
}
