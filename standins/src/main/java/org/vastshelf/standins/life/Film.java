package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.List;

/** A day of filming fills cards; a cut grows through its versions. */
final class Film implements ShareMaker {

    private static final List<String> SUBJECTS = List.of(
            "seed-to-tree", "moss-year", "the-drain", "alder-carr", "school-visits", "night-moths", "glasshouse-roof");

    private int project;

    private String name = "";
    private int version;

    Film() {
        this(40);
    }

    /** Goes on after a number. */
    Film(int project) {
        this.project = project;
    }

    @Override
    public void save(Filing filing, LocalDate day) {
        Staffer who = filing.one("education-film");
        if (name.isEmpty() || filing.oneIn(5)) {
            name = "p%03d-%s".formatted(++project, filing.one(SUBJECTS));
            version = 0;
        }
        if (filing.oneIn(3)) {
            cut(filing, day, who);
        } else {
            shoot(filing, day, who);
        }
    }

    private void shoot(Filing filing, LocalDate day, Staffer who) {
        String card = "/rushes/" + name + "/" + day + " card " + (char) ('a' + filing.random.nextInt(3));
        long at = filing.at(day, who);
        int clips = filing.between(4, 14);
        for (int i = 1; i <= clips; i++) {
            at += 60 + filing.random.nextInt(240);
            filing.add(card, "clip-%03d.mxf".formatted(i), Sizes.RUSH, who, at);
        }
        filing.add(card, "sound.wav", Sizes.SOUND, who, at + 30);
        filing.add(card, "shot list.ods", Sizes.SHEET, who, at + 3_000);
    }

    private void cut(Filing filing, LocalDate day, Staffer who) {
        version++;
        String folder = "/cuts/" + name;
        long at = filing.at(day, who);
        filing.add(folder, "%s v%02d.mov".formatted(name, version), Sizes.CUT, who, at);
        if (filing.oneIn(2)) {
            filing.add(folder + "/for viewing", "%s v%02d.mp4".formatted(name, version), Sizes.CLIP, who, at + 900);
        }
    }

    @Override
    public double opened() {
        return 0.6;
    }
}
