package org.vastshelf.app.build;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;

/** The front of an enclosure: bays in rows of twelve, each drive as high as it is large. */
public record BayPicture(Enclosure enclosure, int width, int height, List<Bay> bays) {

    private static final int COLUMNS = 12;
    private static final int BAY_WIDTH = 64;
    /** Room for the bay's number. */
    private static final int UNDER = 24;

    private static final int LONGEST_LABEL = 9;
    private static final int LEAST = 30;
    private static final int MOST = 56;

    /** One bay: place and height in px, and what is in it. */
    public record Bay(int number, int x, int y, int height, Optional<Drive> drive, String state, String label) {

        /** Where its drive's page is; null for an empty bay. */
        public @Nullable String path() {
            return drive.map(d -> "/build/drives/" + d.key()).orElse(null);
        }

        public String said() {
            return "Bay " + number + ": "
                    + drive.map(d -> String.format(
                                            Locale.ROOT,
                                            "%,d bytes, ",
                                            d.label().value())
                                    + d.kind().title() + ", " + label
                                    + (d.heldData().isEmpty() ? "" : "; holds " + d.heldData()))
                            .orElse("empty");
        }

        public String css() {
            return "drive " + state;
        }

        public String size() {
            return drive.map(d -> Figures.printed(d.label())).orElse("");
        }

        public String word() {
            return switch (state) {
                case "ailing" -> "■ ailing";
                case "failed" -> "✕ failed";
                default -> label;
            };
        }

        public String wordCss() {
            return word().equals(label) ? "small quiet" : "small act";
        }

        public boolean isSolid() {
            return drive.filter(d -> d.kind() == DriveKind.SOLID_STATE).isPresent();
        }

        /** What its locate light shows. */
        public String light() {
            return drive.filter(Drive::locating).isPresent() ? "✹ here" : "";
        }

        public int left() {
            return x + 1;
        }

        public int middle() {
            return x + 30;
        }

        public int right() {
            return x + 58;
        }

        public int edge() {
            return y + 4;
        }

        public int sizeAt() {
            return y + height / 2 + 1;
        }

        public int wordAt() {
            return y + height / 2 + 13;
        }

        public int below() {
            return y + height + 12;
        }

        public boolean isFree() {
            return drive.filter(d -> d.state() == DriveState.UNCLAIMED).isPresent();
        }
    }

    public String said() {
        return said(enclosure);
    }

    /** What is drawn. */
    public String front() {
        return "Front of enclosure " + enclosure.number();
    }

    static String said(Enclosure enclosure) {
        return "Enclosure " + enclosure.number() + ", " + enclosure.bays() + " bays"
                + (enclosure.note().isEmpty() ? "" : ", " + enclosure.note());
    }

    public static List<BayPicture> of(Estate estate, String server) {
        return estate.enclosures().values().stream()
                .filter(e -> e.server().equals(server))
                .map(e -> draw(estate, e))
                .toList();
    }

    private static BayPicture draw(Estate estate, Enclosure enclosure) {
        long largest = estate.drives().values().stream()
                .mapToLong(d -> d.label().value())
                .max()
                .orElse(1);
        int highest = estate.drives().values().stream()
                .filter(d -> d.server().equals(enclosure.server()) && d.enclosure() == enclosure.number())
                .mapToInt(d -> height(d, largest))
                .max()
                .orElse(LEAST);
        int rowHeight = highest + UNDER;
        List<Bay> bays = new ArrayList<>();
        IntStream.rangeClosed(1, enclosure.bays()).forEach(number -> {
            Optional<Drive> drive = Optional.ofNullable(estate.drives().get(enclosure.key() + "/" + number));
            int height = drive.map(d -> height(d, largest)).orElse(LEAST);
            int row = (number - 1) / COLUMNS;
            bays.add(new Bay(
                    number,
                    (number - 1) % COLUMNS * BAY_WIDTH,
                    row * rowHeight + highest + 2 - height,
                    height,
                    drive,
                    drive.map(BayPicture::state).orElse("empty"),
                    drive.map(d -> label(estate, d)).orElse("empty")));
        });
        int rows = (enclosure.bays() + COLUMNS - 1) / COLUMNS;
        return new BayPicture(enclosure, Math.min(COLUMNS, enclosure.bays()) * BAY_WIDTH, rows * rowHeight, bays);
    }

    private static int height(Drive drive, long largest) {
        return LEAST + (int) ((MOST - LEAST) * drive.label().value() / largest);
    }

    private static String state(Drive drive) {
        return ails(drive)
                ? "ailing"
                : drive.state().name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** The end of a long name, which tells names of a series apart. */
    private static String fitting(String name) {
        return name.length() <= LONGEST_LABEL ? name : "…" + name.substring(name.length() - LONGEST_LABEL + 1);
    }

    private static boolean ails(Drive drive) {
        return drive.state() != DriveState.FAILED && drive.health().ailment().isPresent();
    }

    private static String label(Estate estate, Drive drive) {
        return ails(drive)
                ? "ailing"
                : estate.poolOf(drive)
                        .map(p -> fitting(p.name()))
                        .map(n -> drive.state() == DriveState.SPARE ? "spare" : n)
                        .orElse(drive.state().title());
    }
}
