package org.vastshelf.core;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;

/** Small estates and rules for tests. */
public final class Samples {

    public static final Person SUKI =
            new Person("suki", "Suki Marr", "suki@larkmoor.example", Set.of("education-film"));
    public static final FileServer SERVER =
            FileServer.of("hill", "site", "hill.larkmoor.example", "10.20.1.10", 1, false);

    private Samples() {}

    /** One file server with an enclosure of unclaimed drives of these sizes, in bays 1, 2, …. */
    public static Estate racked(List<Long> labels) {
        List<Drive> drives = new ArrayList<>();
        for (int i = 0; i < labels.size(); i++) {
            drives.add(Drive.fresh("hill", 1, i + 1, Bytes.of(labels.get(i)), DriveKind.SPINNING));
        }
        return Estate.EMPTY
                .with(Kinds.SITE, new Site("site", "Site"))
                .with(Kinds.SERVER, SERVER)
                .with(Kinds.ENCLOSURE, new Enclosure("hill", 1, Math.max(1, labels.size()), ""))
                .with(Kinds.DRIVE, drives);
    }

    /** The estate with solid-state drives in these bays. */
    public static Estate solidState(Estate estate, List<String> bays) {
        return estate.withDrives(bays.stream()
                .map(estate.drives()::get)
                .map(d -> Drive.fresh(d.server(), d.enclosure(), d.bay(), d.label(), DriveKind.SOLID_STATE))
                .toList());
    }

    public static List<String> bays(int count) {
        return java.util.stream.IntStream.rangeClosed(1, count)
                .mapToObj(i -> "hill/1/" + i)
                .toList();
    }

    public static Volume volume(String name, String pool, long gib, boolean thin) {
        return Volume.plain(name, pool, Bytes.gib(gib), thin, Volume.DEFAULT_BLOCK, Volume.DEFAULT_ALARM);
    }

    public static Share share(AccessRule... access) {
        return new Share("film", "film", true, false, true, List.of(access), List.of(), java.util.Optional.empty());
    }

    /** Levels in bytes; 0 for none. */
    public static LimitRule rule(String path, boolean eachChild, long warn, long grace, long stop) {
        return new LimitRule(
                "film", new FilePath(path), eachChild, level(warn), level(grace), Duration.ofDays(7), level(stop));
    }

    private static Optional<Bytes> level(long bytes) {
        return bytes == 0 ? Optional.empty() : Optional.of(Bytes.of(bytes));
    }
}
