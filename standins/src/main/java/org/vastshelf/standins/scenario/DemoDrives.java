package org.vastshelf.standins.scenario;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveHealth;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.unit.Bytes;

/** What stands in the bays of the trust on its first day. */
final class DemoDrives {

    private static final Bytes TB = Bytes.of(1_000_000_000_000L);
    private static final DriveHealth WELL = DriveHealth.well(21_400);
    private static final DriveHealth NEW = DriveHealth.well(12);
    private static final DriveHealth AILING = new DriveHealth(96, 82, 41, 13, 0, 46, 39_750, 0, Instant.EPOCH);

    private DemoDrives() {}

    static List<Drive> all() {
        List<Drive> drives = new ArrayList<>();
        rack(drives, "fernhill", 1, 1, 8, 12, DriveKind.SPINNING, DriveState.IN_USE, WELL);
        rack(drives, "fernhill", 1, 9, 6, 8, DriveKind.SPINNING, DriveState.IN_USE, WELL);
        rack(drives, "fernhill", 1, 15, 1, 12, DriveKind.SPINNING, DriveState.SPARE, WELL);
        rack(drives, "fernhill", 1, 17, 3, 4, DriveKind.SOLID_STATE, DriveState.IN_USE, WELL);
        rack(drives, "fernhill", 2, 1, 3, 8, DriveKind.SPINNING, DriveState.IN_USE, WELL);
        rack(drives, "fernhill", 2, 4, 3, 12, DriveKind.SPINNING, DriveState.IN_USE, WELL);
        rack(drives, "fernhill", 2, 7, 1, 16, DriveKind.SPINNING, DriveState.IN_USE, AILING);
        rack(drives, "fernhill", 3, 1, 4, 8, DriveKind.SPINNING, DriveState.UNCLAIMED, NEW);
        rack(drives, "fernhill", 3, 5, 4, 12, DriveKind.SPINNING, DriveState.UNCLAIMED, NEW);
        rack(drives, "fernhill", 3, 9, 2, 16, DriveKind.SPINNING, DriveState.UNCLAIMED, NEW);
        rack(drives, "fernhill", 3, 11, 1, 20, DriveKind.SPINNING, DriveState.UNCLAIMED, NEW);
        drives.add(new Drive(
                "fernhill",
                3,
                12,
                TB.times(20),
                DriveKind.SPINNING,
                DriveState.UNCLAIMED,
                WELL,
                "1.8 TB of an older pool named 'glasshouse-2021'",
                false,
                List.of()));
        rack(drives, "saltmarsh", 1, 1, 7, 8, DriveKind.SPINNING, DriveState.IN_USE, WELL);
        rack(drives, "dewpond", 1, 1, 3, 6, DriveKind.SPINNING, DriveState.UNCLAIMED, NEW);
        rack(drives, "dewpond", 1, 4, 2, 4, DriveKind.SOLID_STATE, DriveState.IN_USE, WELL);
        return drives;
    }

    private static void rack(
            List<Drive> drives,
            String server,
            int enclosure,
            int firstBay,
            int count,
            int terabytes,
            DriveKind kind,
            DriveState state,
            DriveHealth health) {
        for (int i = 0; i < count; i++) {
            drives.add(new Drive(
                    server, enclosure, firstBay + i, TB.times(terabytes), kind, state, health, "", false, List.of()));
        }
    }
}
