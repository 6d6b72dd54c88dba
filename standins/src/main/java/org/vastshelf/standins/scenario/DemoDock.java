package org.vastshelf.standins.scenario;

import java.util.List;
import java.util.stream.IntStream;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveHealth;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.unit.Bytes;

/** Enclosures that stand beside the trust's file servers, cabled or half cabled, for a rescan to find. */
public final class DemoDock {

    private static final Bytes TB = Bytes.of(1_000_000_000_000L);

    private DemoDock() {}

    /** What a rescan of a file server sees. */
    public static List<Arrival> seenBy(String server) {
        return switch (server) {
            case "fernhill" ->
                List.of(
                        arrival("fernhill", 4, 12, 20, DriveKind.SPINNING, ""),
                        arrival(
                                "fernhill",
                                5,
                                24,
                                4,
                                DriveKind.SOLID_STATE,
                                "only one of two data cables is plugged; node 2 does not see it"));
            case "saltmarsh" -> List.of(arrival("saltmarsh", 2, 12, 12, DriveKind.SPINNING, "no power on either feed"));
            default -> List.of();
        };
    }

    private static Arrival arrival(String server, int number, int bays, int terabytes, DriveKind kind, String missing) {
        List<Drive> drives = IntStream.rangeClosed(1, bays)
                .mapToObj(bay -> new Drive(
                        server,
                        number,
                        bay,
                        TB.times(terabytes),
                        kind,
                        DriveState.UNCLAIMED,
                        DriveHealth.well(9),
                        "",
                        false,
                        List.of()))
                .toList();
        return new Arrival(new Enclosure(server, number, bays, "found by a rescan"), drives, missing);
    }
}
