package org.vastshelf.app.build;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.layout.LayoutShape;
import org.vastshelf.core.unit.Bytes;

/**
 * The bands of a terraced layout, cut across the drives of one group.
 *
 * @param caption which of several groups it is; empty for the only one
 */
public record BandsPicture(String caption, String said, int width, List<Cell> cells, List<Text> texts) {

    private static final int CELL = 42;
    private static final int BESIDE = 10;
    private static final int ROOM = 330;
    private static final int FLOOR = 150;
    private static final int HEIGHT = 130;
    private static final int LEAST = 16;

    /** What one band takes of one drive; px. */
    public record Cell(String css, String letter, int x, int y, int height) {

        public int middleX() {
            return x + 19;
        }

        public int middleY() {
            return y + height / 2 + 4;
        }
    }

    /** What a band gives. */
    public record Text(int x, int y, String text) {}

    /** Draws bands from the right, the largest drives. */
    static BandsPicture draw(Figures fmt, LayoutQuestion part, List<LayoutShape.Band> bands, int number, int groups) {
        int drives = part.members().size();
        Bytes tallest = part.members().getLast();
        List<Cell> cells = new ArrayList<>();
        List<Text> texts = new ArrayList<>();
        int y = FLOOR;
        for (LayoutShape.Band band : bands) {
            int height = (int) Math.max(LEAST, Math.round(band.thickness().shareOf(tallest) * HEIGHT));
            y -= height;
            for (int i = 0; i < band.drives(); i++) {
                boolean protects = i < band.protection();
                cells.add(new Cell(
                        band.isStranded() ? "stranded" : protects ? "protection" : "data",
                        band.isStranded() ? "" : protects ? "P" : "D",
                        (drives - band.drives() + i) * CELL,
                        y,
                        height - 2));
            }
            texts.add(new Text(
                    drives * CELL + BESIDE,
                    y + (height - 2) / 2 + 4,
                    band.drives() + " × " + fmt.size(band.thickness()) + " → " + fmt.size(band.data())));
        }
        String which = groups > 1 ? "Group " + number + " of " + groups : "";
        return new BandsPicture(
                which,
                "Bands of the terraced layout" + (groups > 1 ? ", group " + number : ""),
                drives * CELL + ROOM,
                cells,
                texts);
    }
}
