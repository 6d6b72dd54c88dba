package org.vastshelf.e2e;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.failure.Mishap;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.unit.Bytes;

/** What anybody might want of an estate, and what might happen to it; much of it is refused. */
final class ChaosMoves {

    private static final List<Bytes> SIZES = List.of(Bytes.gib(4_000), Bytes.tib(10), Bytes.tib(18));

    private final Random random;

    ChaosMoves(Random random) {
        this.random = random;
    }

    Change change(Estate estate) {
        List<String> free = new ArrayList<>(estate.drivesOf("fernhill")
                .filter(d -> d.state() == DriveState.UNCLAIMED)
                .map(Drive::key)
                .toList());
        Collections.shuffle(free, random);
        List<String> some = free.subList(0, Math.min(free.size(), 2 + random.nextInt(3)));
        String pool = one(estate.pools().values().stream()
                .filter(p -> p.server().equals("fernhill"))
                .map(Pool::name)
                .toList());
        String volume = one(estate.volumes().values().stream()
                .filter(v -> !estate.pools().get(v.pool()).isReservation())
                .map(Volume::name)
                .toList());
        return switch (random.nextInt(11)) {
            case 0 ->
                new PoolChange.ComposePool(
                        "fig-" + random.nextInt(1_000), "fernhill", some, one(List.of(Layout.values())), 0, false, 1);
            case 1 ->
                new VolumeChange.ComposeVolume(Volume.plain(
                        "new-" + random.nextInt(1_000), pool, Bytes.gib(1 + random.nextInt(900)), true, 65_536, 85));
            case 2 ->
                new VolumeChange.ResizeVolume(
                        volume, estate.volumes().get(volume).size().plus(Bytes.gib(1 + random.nextInt(500))));
            case 3 -> new VolumeChange.MoveVolume(volume, pool, 2_000);
            case 4 -> new PoolChange.AddSpares(pool, some);
            case 5 -> new PoolChange.SetPoolReserve(pool, Bytes.gib(random.nextInt(3_000)));
            case 6 -> new PoolChange.AddGroup(pool, some, one(List.of(Layout.RAID_1, Layout.RAID_5)), false, false);
            case 7 ->
                new PoolChange.ReplaceDrives(
                        pool,
                        List.of(new PoolChange.Swap(
                                one(estate.pools().get(pool).members()), free.isEmpty() ? "none" : free.getFirst())),
                        random.nextBoolean());
            case 8 -> new VolumeChange.ConvertVolume(volume, random.nextBoolean());
            case 9 -> new VolumeChange.SetAlarm(volume, 50 + random.nextInt(50));
            default ->
                new PoolChange.DissolvePool(one(List.copyOf(estate.pools().keySet())));
        };
    }

    private <T> T one(List<T> list) {
        return list.get(random.nextInt(list.size()));
    }

    /** Drives fail and are brought in turn, so that an estate never runs out of either. */
    Mishap mishap(Estate estate) {
        List<Drive> drives = List.copyOf(estate.drives().values());
        List<String> failed = drives.stream()
                .filter(d -> d.state() == DriveState.FAILED)
                .map(Drive::key)
                .toList();
        String drive = one(drives).key();
        return switch (random.nextInt(9)) {
            case 0, 1 -> new Mishap.DriveFails(drive);
            case 2 -> new Mishap.DrivePulled(drive);
            case 3 -> new Mishap.BlocksDamaged(drive, 1 + random.nextInt(5));
            case 4 -> random.nextBoolean() ? new Mishap.PowerCut("saltmarsh") : new Mishap.PowerBack("saltmarsh");
            case 5 -> new Mishap.ClientLoad("fernhill", random.nextInt(96));
            case 6 -> new Mishap.DriveAils(drive);
            default ->
                new Mishap.DriveBrought(
                        failed.isEmpty() ? "fernhill/3/" + (1 + random.nextInt(12)) : one(failed),
                        random.nextInt(4) == 0 ? DriveKind.SOLID_STATE : DriveKind.SPINNING,
                        one(SIZES));
        };
    }

    /** A save, a removal or a look, by people with and without access. */
    String operation() {
        String kind = one(List.of("WRITE", "WRITE", "WRITE", "DELETE", "READ", "LIST"));
        String share = one(List.of("office", "film", "plans", "homes"));
        String folder = share.equals("homes") ? "/suki" : "/melee/m" + random.nextInt(3);
        String path = kind.equals("LIST") ? folder : folder + "/f" + random.nextInt(9) + ".odt";
        long bytes = kind.equals("WRITE") ? (long) (random.nextDouble() * random.nextInt(2_000) * 1e9) : 0;
        return "{\"person\":\"" + one(List.of("suki", "odile", "pell")) + "\",\"share\":\"" + share
                + "\",\"operation\":\"" + kind + "\",\"path\":\"" + path + "\",\"bytes\":" + bytes + "}";
    }
}
