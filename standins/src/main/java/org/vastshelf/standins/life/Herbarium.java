package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.List;
import org.vastshelf.core.content.Contents;

/** Sheets are scanned a box at a time; from each scan a smaller picture is made, and some are touched up. */
final class Herbarium implements ShareMaker {

    private static final List<String> HOUSES =
            List.of("tarnbeck-museum", "isle-of-roan-college", "brackmoor-society", "fell-garden-trust");
    private static final List<String> JOURNEYS =
            List.of("expedition-moss-2019", "expedition-fern-2022", "expedition-sedge-2024", "coast-survey");
    private static final int A_BOX = 100;

    private int sheet;

    Herbarium() {
        this(104_000);
    }

    /** Goes on after a number. */
    Herbarium(int sheet) {
        this.sheet = sheet;
    }

    @Override
    public void save(Filing filing, LocalDate day) {
        Staffer who = filing.one("herbarium-imaging");
        int sheets = filing.between(6, 30);
        String place = place(filing, day);
        long at = filing.at(day, who);
        for (int i = 0; i < sheets; i++) {
            sheet++;
            String box = "box-" + sheet / A_BOX;
            String name = "LBT-" + sheet;
            LivingFile scan = filing.add(place + "/" + box, name + ".tif", Sizes.SHEET_SCAN, who, at);
            at += 40 + filing.random.nextInt(50);
            String small = "/derivatives/" + day.getYear() + "/" + box;
            filing.add(small, name + ".jpg", Sizes.WEB_PICTURE, who, at);
            if (filing.oneIn(9)) {
                filing.add(scan.folder(), name + "-touched-up.tif", touchedUp(filing, scan), who, at + 600);
            }
        }
    }

    /** The same scan with another heading and a few patches that were painted over. */
    private static Contents touchedUp(Filing filing, LivingFile scan) {
        Contents next = scan.contents().with(0, filing.fresh(scan.name(), 4_096));
        for (int i = 0; i < 3; i++) {
            long patch = 1_000_000 + filing.random.nextInt(5_000_000);
            long at = (long) (filing.random.nextDouble() * (scan.bytes() - patch)) & -4_096;
            next = next.with(at, filing.fresh("patch.tif", patch));
        }
        return next;
    }

    private static String place(Filing filing, LocalDate day) {
        return switch (filing.random.nextInt(10)) {
            case 0 -> "/types/" + day.getYear();
            case 1 -> "/loans/" + filing.one(HOUSES) + "/" + day.getYear();
            case 2 -> "/expeditions/" + filing.one(JOURNEYS);
            default -> "/pressings/" + day.getYear();
        };
    }
}
