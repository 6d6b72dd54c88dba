package org.vastshelf.standins.life;

import java.time.Instant;
import java.util.List;
import java.util.Random;
import org.vastshelf.core.gate.FileOperation.Kind;

/** An account in wrong hands: within three quarters of an hour it saves hundreds of files anew and deletes as many. */
final class Spree {

    private static final long BEGIN = Instant.parse("2026-02-19T06:41:12Z").getEpochSecond();
    private static final long LENGTH = 45 * 60;
    private static final int REWRITTEN = 640;
    private static final int DELETED = 420;
    private static final int DAY = 86_400;

    private Spree() {}

    /** Where the deeds go. */
    interface Sink {
        void deed(long seconds, Staffer who, Kind kind, String path, long bytes);

        void ghost(Ghost ghost);

        void past(Past past);
    }

    static void on(Crew crew, List<LivingFile> files, Random random, Sink sink) {
        Staffer who = crew.named("pell", "interns");
        List<LivingFile> old =
                files.stream().filter(f -> f.modified() < BEGIN - 40L * DAY).toList();
        for (int i = 0; i < REWRITTEN && !old.isEmpty(); i++) {
            LivingFile file = old.get(random.nextInt(old.size()));
            if (file.modified() < BEGIN) {
                long at = BEGIN + LENGTH * i / REWRITTEN;
                sink.deed(at - 1, who, Kind.READ, file.path(), 0);
                sink.deed(at, who, Kind.WRITE, file.path(), file.bytes());
                Past.like(file, file.bytes())
                        .ifPresent(held -> sink.past(new Past(
                                "office", file.folder(), file.name(), file.owner(), held, file.modified(), at)));
                file.rewritten(who, at);
                file.told();
            }
        }
        for (int i = 0; i < DELETED && !old.isEmpty(); i++) {
            LivingFile like = old.get(random.nextInt(old.size()));
            long at = BEGIN + LENGTH * i / DELETED + 2;
            String name = "Annex to " + like.name();
            sink.deed(at, who, Kind.DELETE, like.folder() + "/" + name, 0);
            sink.ghost(new Ghost("office", 1, like.bytes(), 0, at));
            Past.like(like, like.bytes())
                    .ifPresent(held -> sink.past(
                            new Past("office", like.folder(), name, like.owner(), held, like.before(at), at)));
        }
    }
}
