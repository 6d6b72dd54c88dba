package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import org.vastshelf.core.gate.FileOperation.Kind;

/** What people open: mostly what is new, of their own department, their home, the office. */
final class Reading {

    private static final List<String> OPEN_TO_ALL = List.of("herbarium", "plans", "press");
    private static final Map<String, List<String>> OF_DEPARTMENT = Map.of(
            "herbarium-imaging", List.of("herbarium"),
            "seed-genomics", List.of("sequences"),
            "living-collections", List.of("fieldlogs", "herbarium"),
            "education-film", List.of("film", "press"),
            "grounds", List.of("plans"),
            "people-finance", List.of("office"),
            "volunteers", List.of("film", "office"),
            "interns", List.of("office", "press"));
    private static final int SKEW = 6;

    private final Random random;
    private final Map<String, ShareLife> shares;
    private final Map<String, Map<String, List<LivingFile>>> folders = new HashMap<>();
    private final Map<String, List<LivingFile>> homes;
    private final Sink sink;

    /** Where the deeds go. */
    interface Sink {
        void deed(long seconds, Staffer who, String share, Kind kind, String path, long bytes);
    }

    Reading(Map<String, ShareLife> shares, Random random, Sink sink) {
        this.shares = shares;
        this.random = random;
        this.sink = sink;
        shares.forEach((share, life) -> folders.put(share, life.folders()));
        ShareLife all = shares.get("homes");
        this.homes = all == null
                ? Map.of()
                : all.files().stream()
                        .collect(Collectors.groupingBy(
                                f -> f.path().substring(1, f.path().indexOf('/', 1))));
    }

    /** Somebody's day, with about so many deeds. */
    void day(Staffer who, LocalDate day, int deeds) {
        int done = 0;
        while (done < deeds) {
            done += session(who, day);
        }
    }

    /** Opens a folder and reads some of what is in it, one after the other. */
    private int session(Staffer who, LocalDate day) {
        long at = Hours.moment(random, day, who);
        String share = share(who);
        List<LivingFile> all = share.equals("homes") ? homes.getOrDefault(who.uid(), List.of()) : files(share);
        if (all.isEmpty()) {
            return 1;
        }
        double opened = share.equals("homes") ? 1 : shares.get(share).opened();
        int back = (int) (all.size() * opened * Math.pow(random.nextDouble(), SKEW));
        LivingFile first = all.get(all.size() - 1 - back);
        sink.deed(at, who, share, Kind.LIST, first.folder(), 0);
        List<LivingFile> beside = folders.get(share).get(first.folder());
        int begin = beside.indexOf(first);
        int done = 1;
        for (int i = begin; i < Math.min(beside.size(), begin + 1 + random.nextInt(11)); i++) {
            LivingFile file = beside.get(i);
            at += 2 + random.nextInt(25);
            if (file.modified() < at) {
                sink.deed(at, who, share, Kind.READ, file.path(), 0);
                file.readAt(at);
            }
            done++;
        }
        return done;
    }

    private List<LivingFile> files(String share) {
        ShareLife life = shares.get(share);
        return life == null ? List.of() : life.files();
    }

    private String share(Staffer who) {
        int dice = random.nextInt(12);
        if (dice < 3) {
            return "homes";
        }
        if (dice < 5) {
            return "office";
        }
        return dice == 5
                ? Crew.one(random, OPEN_TO_ALL)
                : Crew.one(random, OF_DEPARTMENT.getOrDefault(who.department(), List.of("office")));
    }
}
