package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.vastshelf.core.unit.Bytes;

/** Everybody's own folder: papers, pictures, and films that should be elsewhere. */
final class Homes implements ShareMaker {

    /** People whose films have the names of papers. */
    static final List<String> HIDERS = List.of("nhedge", "lwren", "rdale");

    private static final String AT_LIMIT = "suki";
    private static final List<String> PAPERS = List.of(
            "Letter",
            "Timetable",
            "Review",
            "Notes",
            "List",
            "Report",
            "Application",
            "Recipe",
            "Itinerary",
            "Reading");
    private static final List<List<String>> FOLDERS = List.of(
            List.of("Papers", "Pictures", "Films", "From the old computer", "Scans"),
            List.of("documents", "photos", "video", "backup", "misc"),
            List.of("work", "work/old", "pics/camera", "pics/phone", "new folder", "new folder/new folder"));

    /** How much of a home was filled, by person. */
    private final Map<String, Long> held = new HashMap<>();

    private List<Staffer> still = List.of();

    @Override
    public void save(Filing filing, LocalDate day) {
        if (still.isEmpty()) {
            still = new ArrayList<>(filing.crew.people());
        }
        Staffer who = filing.one(still);
        long before = filing.bytes();
        one(filing, who, day);
        long now = held.merge(who.uid(), filing.bytes() - before, Long::sum);
        if (now > most(who) - Sizes.CLIP.most()) {
            still.remove(who);
        }
    }

    /** What somebody keeps at most, but for who is at the limit. */
    private static long most(Staffer who) {
        return Bytes.GIB * (104 + Math.floorMod(who.uid().hashCode(), 35));
    }

    private static void one(Filing filing, Staffer who, LocalDate day) {
        List<String> folders = FOLDERS.get(who.tidy());
        long at = filing.at(day, who);
        switch (filing.random.nextInt(12)) {
            case 0, 1, 2 -> {
                String name = HIDERS.contains(who.uid())
                        ? filing.one(PAPERS) + " " + day + (filing.oneIn(2) ? ".odt" : ".pdf")
                        : filing.one(List.of("garden", "birds", "walk", "party", "talk")) + " " + day + ".mp4";
                String folder = HIDERS.contains(who.uid()) ? folders.getFirst() : folders.get(2);
                long length = Sizes.CLIP.draw(filing.random);
                filing.add("/" + who.uid() + "/" + folder, name, filing.fresh("a.mp4", length), who, at);
            }
            case 3 -> {
                String folder = "/%s/%s/%d %s"
                        .formatted(
                                who.uid(),
                                folders.get(1),
                                day.getYear(),
                                filing.one(List.of("autumn", "spring", "trip")));
                for (int i = filing.between(2, 9); i > 0; i--) {
                    at += 20;
                    filing.add(folder, "p" + (1_000 + filing.random.nextInt(8_999)) + ".jpg", Sizes.PHOTO, who, at);
                }
            }
            case 4 ->
                filing.add("/" + who.uid() + "/" + folders.get(3), "old " + day.getYear() + ".zip", Sizes.ZIP, who, at);
            default -> {
                String folder = "/" + who.uid() + "/" + filing.one(folders);
                String name = filing.one(PAPERS) + " " + (who.tidy() == 0 ? day : filing.between(1, 99));
                boolean table = filing.oneIn(4);
                filing.add(
                        folder,
                        name + (table ? ".ods" : filing.oneIn(3) ? ".pdf" : ".odt"),
                        table ? Sizes.SHEET : Sizes.LETTER,
                        who,
                        at);
            }
        }
    }

    /** The one who is at the limit: filled up to the last block with her own films. */
    @Override
    public void found(Filing filing) {
        Staffer full = filing.crew.named(AT_LIMIT, "education-film");
        long limit = Bytes.gib(150).value() - 4_096;
        long mine = filing.files().stream()
                .filter(f -> f.owner().uid().equals(full.uid()))
                .mapToLong(LivingFile::bytes)
                .sum();
        LocalDate day = LocalDate.of(2025, 6, 2);
        while (mine < limit) {
            String name = "own reel " + day + ".mp4";
            long length = Math.min(limit - mine, Sizes.CLIP.draw(filing.random));
            String folder = "/" + full.uid() + "/" + FOLDERS.get(full.tidy()).get(2);
            filing.add(folder, name, filing.fresh(name, length), full, filing.at(day, full));
            mine += length;
            day = Hours.workday(day.plusDays(1));
        }
    }
}
