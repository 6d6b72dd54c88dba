package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;

/** Letters, tables, minutes; what was agreed is copied to everybody who was there. */
final class Office implements ShareMaker {

    private static final List<String> SUBJECTS = List.of(
            "Budget",
            "Rota",
            "Minutes",
            "Risk list",
            "Visitor count",
            "Shop order",
            "Grant report",
            "Contract",
            "Invoice",
            "Plan of the fair",
            "Price list",
            "Letter to the council",
            "Insurance",
            "Induction",
            "Survey");
    private static final List<String> DESKS = List.of("finance", "people", "board", "events", "shop", "grants");
    private static final List<String> SAVED_AS = List.of("", "", " final", " final 2", " v2", " draft", " signed");

    /** Of what can be made, the first that is no large file. */
    private static final int PAPERS = 2;

    private final List<LivingFile> talkedAbout = new ArrayList<>();
    /** One in so many of the large files that could be made is. */
    private final int seldom;

    private Office(int seldom) {
        this.seldom = seldom;
    }

    /** What is left of years: of small papers few, of boxes and recordings most. */
    static Office ofYears() {
        return new Office(1);
    }

    /** Day by day: many papers, seldom a leaver's box of mail or a recording. */
    static Office ofDays() {
        return new Office(13);
    }

    @Override
    public void save(Filing filing, LocalDate day) {
        Staffer who = filing.one(filing.oneIn(3) ? "" : "people-finance");
        String folder = folder(filing, day, who);
        long at = filing.at(day, who);
        talkedAbout.add(made(filing, folder, day, who, at));
        if (talkedAbout.size() > 60) {
            talkedAbout.removeFirst();
        }
        while (filing.oneIn(3) && !talkedAbout.isEmpty()) {
            copy(filing, day);
        }
    }

    private LivingFile made(Filing filing, String folder, LocalDate day, Staffer who, long at) {
        int which = filing.random.nextInt(135);
        boolean spared = which < PAPERS && seldom > 1 && !filing.oneIn(seldom);
        return switch (spared ? PAPERS : which) {
            case 0 -> filing.add(folder + "/recordings", "meeting " + day + ".mp4", Sizes.RECORDING, who, at);
            case 1 ->
                filing.add(
                        "/people/mail of leavers/" + day.getYear(), "box " + day + ".zip", Sizes.MAIL_ARCHIVE, who, at);
            case PAPERS, 3, 4, 5 -> filing.add(folder + "/scans", "scan " + day + ".pdf", Sizes.SCANNED_PAPER, who, at);
            default -> paper(filing, folder, day, who, at);
        };
    }

    private static LivingFile paper(Filing filing, String folder, LocalDate day, Staffer who, long at) {
        String subject = filing.one(SUBJECTS);
        String date = who.tidy() == 0 ? day + " " : "";
        String text = date + subject + (date.isEmpty() ? " " + day.getYear() : "") + filing.one(SAVED_AS);
        return switch (filing.random.nextInt(10)) {
            case 0, 1, 2 -> filing.add(folder, text + ".ods", Sizes.SHEET, who, at);
            case 3 -> filing.add(folder, text + ".odp", Sizes.SLIDES, who, at);
            case 4, 5 -> filing.add(folder, text + ".pdf", Sizes.PRINT, who, at);
            case 6 -> filing.add(folder, text + ".docx", Sizes.LETTER, who, at);
            default -> filing.add(folder, text + ".odt", Sizes.LETTER, who, at);
        };
    }

    /** The same in another desk's folder, under its name or nearly: papers, scans, recordings, whole boxes of mail. */
    private void copy(Filing filing, LocalDate day) {
        LivingFile paper = filing.one(talkedAbout);
        Staffer who = filing.one("");
        String name = filing.oneIn(4) ? "Copy of " + paper.name() : paper.name();
        filing.add(
                folder(filing, day, who),
                name,
                paper.contents(),
                who,
                Math.max(paper.modified() + 60, filing.at(day, who)));
    }

    private static String folder(Filing filing, LocalDate day, Staffer who) {
        String desk = filing.one(DESKS);
        return switch (who.tidy()) {
            case 0 -> "/%s/%d/%02d".formatted(desk, day.getYear(), day.getMonthValue());
            case 1 -> "/%s/%s %d".formatted(desk, filing.one(SUBJECTS), day.getYear());
            default -> "/%s/%s stuff".formatted(desk, who.uid());
        };
    }
}
