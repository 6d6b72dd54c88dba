package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import org.vastshelf.core.content.Contents;

/** Drawings of grounds and houses; each change keeps the version before. */
final class Plans implements ShareMaker {

    private static final List<String> PLACES = List.of(
            "glasshouses/palm-house",
            "glasshouses/fern-house",
            "grounds/north-slope",
            "grounds/rock-garden",
            "drainage/main-drain",
            "paths/heath-loop",
            "old-wall");
    private static final List<String> MATTERS =
            List.of("roof", "heating", "benches", "steps", "levels", "planting", "wiring", "repair");

    @Override
    public void save(Filing filing, LocalDate day) {
        Staffer who = filing.one("grounds");
        String place = filing.one(PLACES);
        String matter = filing.one(MATTERS);
        String folder = "/%s/%d-%02d %s".formatted(place, day.getYear(), day.getMonthValue(), matter);
        String code = (place.charAt(place.lastIndexOf('/') + 1) + "-").toUpperCase(Locale.ROOT)
                + (100 + filing.random.nextInt(300));
        long at = filing.at(day, who);
        LivingFile first = filing.add(folder, code + " A.dwg", Sizes.DRAWING, who, at);
        for (char revision = 'B'; filing.oneIn(2) && revision < 'G'; revision++) {
            at += 3_600 + filing.random.nextInt(9_000);
            long changed = first.bytes() / 6;
            Contents next = first.contents().with(first.bytes() / 3, filing.fresh("change.dwg", changed));
            filing.add(folder, code + " " + revision + ".dwg", next, who, at);
        }
        filing.add(folder + "/plots", code + ".pdf", Sizes.PLOT, who, at + 300);
        if (filing.oneIn(9)) {
            filing.add(folder, "points " + day + ".dat", Sizes.POINTS, who, at + 700);
        } else if (filing.oneIn(5)) {
            filing.add(folder, "from above " + day + ".tif", Sizes.AERIAL, who, at + 800);
        }
    }

    @Override
    public double opened() {
        return 0.7;
    }
}
