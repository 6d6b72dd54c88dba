package org.vastshelf.core.estate;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.unit.Bytes;

/**
 * One drive in a bay.
 *
 * @param label the size on its label
 * @param heldData what an earlier owner left on it; empty for none
 * @param locating whether its locate light is on
 * @param damaged offsets of blocks that went bad, in bytes; nobody knows of them until a scrub has read them
 */
public record Drive(
        String server,
        int enclosure,
        int bay,
        Bytes label,
        DriveKind kind,
        DriveState state,
        DriveHealth health,
        String heldData,
        boolean locating,
        List<Long> damaged) {

    public Drive {
        // Definitions written before blocks had offsets do not name it.
        damaged = damaged == null ? List.of() : List.copyOf(damaged);
    }

    /** New, unclaimed and without a flaw. */
    public static Drive fresh(String server, int enclosure, int bay, Bytes label, DriveKind kind) {
        return new Drive(
                server, enclosure, bay, label, kind, DriveState.UNCLAIMED, DriveHealth.well(0), "", false, List.of());
    }

    /** Server, enclosure and bay, such as {@code fernhill/3/7}. */
    public String key() {
        return server + "/" + enclosure + "/" + bay;
    }

    public Drive in(DriveState next) {
        return new Drive(server, enclosure, bay, label, kind, next, health, heldData, locating, damaged);
    }

    public Drive withHealth(DriveHealth next) {
        return new Drive(server, enclosure, bay, label, kind, state, next, heldData, locating, damaged);
    }

    public Drive withDamaged(List<Long> blocks) {
        return new Drive(server, enclosure, bay, label, kind, state, health, heldData, locating, blocks);
    }

    public Drive withLocating(boolean on) {
        return new Drive(server, enclosure, bay, label, kind, state, health, heldData, on, damaged);
    }

    /** The same drive with nothing on it any more. */
    public Drive wiped() {
        return new Drive(server, enclosure, bay, label, kind, state, health, "", locating, List.of());
    }

    public String enclosureKey() {
        return server + "/" + enclosure;
    }

    public boolean isFree() {
        return state == DriveState.UNCLAIMED || state == DriveState.CLAIMED;
    }

    /** With the counters that it reports by now; one that has failed reports nothing more. */
    public Drive at(Instant now) {
        return state == DriveState.FAILED ? this : withHealth(health.at(now));
    }

    /** As it is shown: one whose counters say so is ailing, whatever it is used for. */
    public Drive asSeen() {
        return state != DriveState.FAILED && health.ailment().isPresent() ? in(DriveState.AILING) : this;
    }

    public Optional<String> held() {
        return heldData.isEmpty() ? Optional.empty() : Optional.of(heldData);
    }
}
