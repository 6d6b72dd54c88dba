package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.List;

/** Pictures of an occasion, some worked on, a few sent out. */
final class Press implements ShareMaker {

    private static final List<String> OCCASIONS = List.of(
            "rhododendron weekend",
            "seed fair",
            "royal society visit",
            "new boardwalk",
            "moth night",
            "apple day",
            "christmas trail",
            "council visit",
            "prize giving");

    private int shot;

    Press() {
        this(2_000);
    }

    /** Goes on after a number. */
    Press(int shot) {
        this.shot = shot;
    }

    @Override
    public void save(Filing filing, LocalDate day) {
        Staffer who = filing.one("education-film");
        String folder = "/%d/%s %s".formatted(day.getYear(), day, filing.one(OCCASIONS));
        long at = filing.at(day, who);
        int shots = filing.between(5, 32);
        for (int i = 0; i < shots; i++) {
            String name = "LBT" + ++shot;
            at += 5 + filing.random.nextInt(60);
            filing.add(folder, name + ".jpg", Sizes.PHOTO, who, at);
            filing.add(folder + "/raw", name + ".tif", Sizes.PICTURE_SCAN, who, at + 2);
            if (filing.oneIn(7)) {
                filing.add(folder + "/worked on", name + ".psd", Sizes.LAYERED, who, at + 2_000);
            }
        }
        if (filing.oneIn(4)) {
            filing.add(folder, "interview.mp4", Sizes.CLIP, who, at + 3_000);
        }
        filing.add(folder, "who is who.odt", Sizes.LETTER, who, at + 4_000);
    }

    @Override
    public double opened() {
        return 0.45;
    }
}
