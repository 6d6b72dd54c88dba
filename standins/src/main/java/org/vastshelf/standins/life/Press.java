package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.List;

/** Pictures of an occasion, some worked on, a few sent out. */
final class Press implements ShareMaker {

    /** Each has its time of the year: by month, January first. */
    private static final List<List<String>> OCCASIONS = List.of(
            List.of("council visit", "prize giving"),
            List.of("snowdrop walk", "council visit"),
            List.of("seed fair", "snowdrop walk"),
            List.of("seed fair", "royal society visit"),
            List.of("rhododendron weekend", "royal society visit"),
            List.of("rhododendron weekend", "moth night", "new boardwalk"),
            List.of("moth night", "new boardwalk", "children's day"),
            List.of("moth night", "children's day"),
            List.of("prize giving", "fungus foray"),
            List.of("apple day", "fungus foray"),
            List.of("council visit", "prize giving"),
            List.of("christmas trail"));

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
        String folder = "/%d/%s %s".formatted(day.getYear(), day, filing.one(OCCASIONS.get(day.getMonthValue() - 1)));
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
