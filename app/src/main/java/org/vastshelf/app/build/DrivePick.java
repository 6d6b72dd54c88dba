package org.vastshelf.app.build;

import java.util.Collection;
import java.util.List;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;

/**
 * Drives to choose from, each as high as it is large, with a tick on those that are chosen.
 *
 * @param kinds what can be chosen at once
 */
public record DrivePick(String name, String legend, List<String> kinds, List<Choice> drives) {

    private static final int FLOOR = 80;
    private static final int LEAST = 34;
    private static final int SPREAD = 44;

    /** One drive; place and height in px. */
    public record Choice(
            String key,
            String bay,
            String kind,
            String label,
            String warning,
            String said,
            int height,
            boolean chosen) {

        public int top() {
            return FLOOR - height;
        }

        public int middle() {
            return FLOOR + 4 - height / 2;
        }

        public String tickAt() {
            return "translate(44 " + (FLOOR + 6 - height) + ")";
        }
    }

    /** Offers drives under the name of a parameter. */
    public static DrivePick of(Figures fmt, String name, String legend, List<Drive> drives, Collection<String> chosen) {
        long largest = drives.stream().mapToLong(d -> d.label().value()).max().orElse(1);
        List<Choice> choices =
                drives.stream().map(d -> choice(fmt, d, largest, chosen)).toList();
        List<String> kinds = choices.stream().map(Choice::kind).distinct().toList();
        return new DrivePick(name, legend, kinds.size() > 1 ? kinds : List.of(), choices);
    }

    private static Choice choice(Figures fmt, Drive drive, long largest, Collection<String> chosen) {
        boolean failed = drive.state() == DriveState.FAILED;
        boolean holds = !drive.heldData().isEmpty();
        String bay = drive.enclosure() + "/" + drive.bay();
        return new Choice(
                drive.key(),
                bay,
                Figures.printed(drive.label()) + " " + drive.kind().title(),
                Figures.printed(drive.label()),
                failed ? "✕ failed" : holds ? "■ data" : "",
                "Bay " + bay + ": " + fmt.size(drive.label()) + " "
                        + drive.kind().title() + (holds ? ", holds data" : "") + (failed ? ", failed" : ""),
                LEAST + (int) (drive.label().value() * SPREAD / largest),
                chosen.contains(drive.key()));
    }

    public boolean isEmpty() {
        return drives.isEmpty();
    }
}
