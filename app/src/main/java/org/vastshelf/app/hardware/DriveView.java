package org.vastshelf.app.hardware;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveHealth;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;

/**
 * What the page of one drive shows.
 *
 * @param why it ails; empty where it does not
 * @param filling what it is being filled with; empty for nothing
 */
public record DriveView(
        String key,
        Mark state,
        String why,
        String bay,
        String size,
        String exact,
        String kind,
        Optional<String> pool,
        String heldData,
        String filling,
        List<Counter> counters,
        String rule,
        boolean lit) {

    /** One of its counters; what is not kept for a week is empty. */
    public record Counter(String name, String now, String weekAgo) {}

    static DriveView of(Figures fmt, Estate estate, Drive drive) {
        String why = drive.health().ailment().orElse("");
        return new DriveView(
                drive.key(),
                mark(drive, why),
                why.isEmpty() ? "" : ": " + why,
                "enclosure " + drive.enclosure() + ", bay " + drive.bay() + " of " + drive.server(),
                fmt.size(drive.label()),
                fmt.exact(drive.label()) + " bytes",
                drive.kind().title(),
                estate.poolOf(drive).map(Pool::name),
                drive.heldData(),
                Optional.ofNullable(estate.rebuilds().get(drive.key()))
                        .map(r -> "It is being filled with what " + r.failed() + " held: " + fmt.size(r.done()) + " of "
                                + fmt.size(r.todo()) + ".")
                        .orElse(""),
                counters(fmt, drive),
                DriveHealth.rule(),
                drive.locating());
    }

    private static Mark mark(Drive drive, String why) {
        if (drive.state() == DriveState.FAILED) {
            return Mark.failed("failed");
        }
        return why.isEmpty() ? Mark.fine(drive.state().title()) : Mark.act("ailing");
    }

    private static List<Counter> counters(Figures fmt, Drive drive) {
        DriveHealth health = drive.health();
        List<Counter> counters = new ArrayList<>(List.of(
                new Counter(
                        "reallocated sectors",
                        fmt.count(health.reallocatedSectors()),
                        fmt.count(health.reallocatedWeekAgo())),
                new Counter("pending sectors", fmt.count(health.pendingSectors()), fmt.count(health.pendingWeekAgo())),
                new Counter("uncorrected errors", fmt.count(health.uncorrectedErrors()), ""),
                new Counter("temperature, °C", fmt.count(health.temperature()), ""),
                new Counter("power-on hours", fmt.count(health.powerOnHours()), "")));
        if (drive.kind() == DriveKind.SOLID_STATE) {
            counters.add(new Counter("write endurance used, %", fmt.count(health.wearPercent()), ""));
        }
        return counters;
    }

    /** What its locate light would be after the next press. */
    public boolean unlit() {
        return !lit;
    }

    public String light() {
        return lit ? "Turn its light off" : "Turn its locate light on";
    }
}
