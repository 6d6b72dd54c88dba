package org.vastshelf.core.invariant;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;

/** Every drive is in one bay that exists, belongs to one pool at most, and says so. */
final class Drives {

    private static final Set<DriveState> OF_MEMBERS =
            EnumSet.of(DriveState.IN_USE, DriveState.AILING, DriveState.FAILED);
    private static final Set<DriveState> OF_SPARES = EnumSet.of(DriveState.SPARE, DriveState.AILING);
    private static final Set<DriveState> OF_OTHERS =
            EnumSet.of(DriveState.UNCLAIMED, DriveState.CLAIMED, DriveState.AILING, DriveState.FAILED);

    private final Estate estate;
    private final List<Violation> found = new ArrayList<>();
    private final Map<String, String> places = new HashMap<>();

    private Drives(Estate estate) {
        this.estate = estate;
    }

    static List<Violation> of(Estate estate) {
        Drives drives = new Drives(estate);
        estate.pools().values().forEach(drives::members);
        estate.drives().values().forEach(drives::bay);
        estate.drives().values().stream()
                .filter(d -> !drives.places.containsKey(d.key()))
                .forEach(d -> drives.state(d, OF_OTHERS, "no pool"));
        return drives.found;
    }

    private void members(Pool pool) {
        String name = "pool " + pool.name();
        pool.groups().forEach(g -> g.members().forEach(key -> place(key, name, OF_MEMBERS, pool)));
        pool.spares().forEach(key -> place(key, "the spares of " + name, OF_SPARES, pool));
    }

    private void place(String key, String where, Set<DriveState> states, Pool pool) {
        String other = places.putIfAbsent(key, where);
        if (other != null) {
            add(key + " twice", "drive " + key + " would be in " + other + " and in " + where);
        }
        Drive drive = estate.drives().get(key);
        if (drive == null) {
            return;
        }
        state(drive, states, where);
        if (!drive.server().equals(pool.server())) {
            add(
                    key + " elsewhere",
                    "drive " + key + " is not on file server " + pool.server() + ", which has " + where);
        }
    }

    private void state(Drive drive, Set<DriveState> allowed, String where) {
        if (!allowed.contains(drive.state())) {
            add(
                    drive.key() + " state",
                    "drive " + drive.key() + " would be " + drive.state().title() + " and in " + where);
        }
    }

    private void bay(Drive drive) {
        Enclosure enclosure = estate.enclosures().get(drive.enclosureKey());
        if (enclosure == null) {
            add(drive.key() + " bay", "drive " + drive.key() + " would be in an enclosure that is not there");
        } else if (drive.bay() < 1 || drive.bay() > enclosure.bays()) {
            add(
                    drive.key() + " bay",
                    "drive " + drive.key() + " would be in bay " + drive.bay() + ", enclosure " + enclosure.key()
                            + " has " + enclosure.bays());
        }
    }

    private void add(String key, String text) {
        found.add(new Violation("drive " + key, text));
    }
}
