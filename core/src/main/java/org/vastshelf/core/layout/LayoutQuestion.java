package org.vastshelf.core.layout;

import java.util.Comparator;
import java.util.List;
import org.vastshelf.core.unit.Bytes;

/**
 * What layouts are compared for: the drives and how they behave.
 *
 * @param drives label size of each drive, 1 to 1,000 of them, each large enough to give space after reserve and
 *     alignment
 * @param spares how many of them are kept as hot spares; the largest are taken, since a spare has to be able to
 *     stand in for any other drive
 * @param driveReserve kept back on each drive for the system
 * @param align usable space of a drive is a multiple of this; zero for none
 * @param rates how drives fail and how fast they are rebuilt
 */
public record LayoutQuestion(List<Bytes> drives, int spares, Bytes driveReserve, Bytes align, DriveRates rates) {

    public static final int MOST_DRIVES = 1_000;
    public static final Bytes DEFAULT_RESERVE = Bytes.gib(2);
    public static final Bytes DEFAULT_ALIGN = Bytes.of(Bytes.MIB);
    /** Far beyond any drive; keeps every sum of 1,000 drives within a long. */
    public static final Bytes LARGEST_DRIVE = Bytes.of(1_000_000_000_000_000L);

    public LayoutQuestion {
        drives = List.copyOf(drives);
        if (drives.isEmpty() || drives.size() > MOST_DRIVES) {
            throw new IllegalArgumentException(
                    "drives holds " + drives.size() + " drives, must be 1 to " + MOST_DRIVES);
        }
        if (spares < 0 || spares >= drives.size()) {
            throw new IllegalArgumentException("spares is " + spares + ", must be 0 to " + (drives.size() - 1) + " for "
                    + drives.size() + " drives");
        }
        for (Bytes drive : drives) {
            if (drive.isMoreThan(LARGEST_DRIVE)) {
                throw new IllegalArgumentException(
                        "drive is " + drive.value() + " bytes, must be at most " + LARGEST_DRIVE.value() + " bytes");
            }
            if (drive.minusOrZero(driveReserve).roundDownTo(align).isZero()) {
                throw new IllegalArgumentException("drive is " + drive.value() + " bytes, must be at least "
                        + least(driveReserve, align) + " bytes to give any space");
            }
        }
    }

    private static long least(Bytes reserve, Bytes align) {
        return reserve.value() + Math.max(1, align.value());
    }

    public static LayoutQuestion withDefaults(List<Bytes> drives, int spares, DriveRates rates) {
        return new LayoutQuestion(drives, spares, DEFAULT_RESERVE, DEFAULT_ALIGN, rates);
    }

    /** Usable space of one drive: u = floor((size − reserve) / align) · align. */
    public Bytes usable(Bytes drive) {
        return drive.minusOrZero(driveReserve).roundDownTo(align);
    }

    /** Usable space of each drive that takes part, ascending; the spares are left out. */
    public List<Bytes> members() {
        return drives.stream()
                .sorted()
                .limit(drives.size() - (long) spares)
                .map(this::usable)
                .toList();
    }

    /** Label sizes of the hot spares, largest first. */
    public List<Bytes> spareDrives() {
        return drives.stream().sorted(Comparator.reverseOrder()).limit(spares).toList();
    }
}
