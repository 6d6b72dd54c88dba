package org.vastshelf.app.protect;

import java.time.LocalDateTime;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.PairChange;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.ProtectionGoal;
import org.vastshelf.core.estate.ProtectionGoal.Loss;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.replica.PairProposal;
import org.vastshelf.core.snapshot.KeepRule;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.unit.Counted;

/**
 * The cheapest change that mends what falls short.
 *
 * @param change to be drafted; empty where something has to be chosen first
 * @param where that is done
 */
record Mending(String said, Optional<Change> change, String where) {

    /** From the rarest on. */
    private enum Rhythm {
        DAY(1_440, "FREQ=DAILY", "each day"),
        SIX_HOURS(360, "FREQ=HOURLY;INTERVAL=6", "every six hours"),
        HOUR(60, "FREQ=HOURLY", "each hour"),
        QUARTER(15, "FREQ=MINUTELY;INTERVAL=15", "every quarter of an hour"),
        FIVE(5, "FREQ=MINUTELY;INTERVAL=5", "every five minutes");

        private final int minutes;
        private final String rule;
        private final String words;

        Rhythm(int minutes, String rule, String words) {
            this.minutes = minutes;
            this.rule = rule;
            this.words = words;
        }
    }

    private static final LocalDateTime FROM = LocalDateTime.of(2026, 1, 1, 0, 0);
    private static final KeepRule KEPT = new KeepRule(12, 24, 14, 8, 0, 0);

    /** @param copies finds the copy that would outlive the loss, where there is none yet */
    static Mending of(Losses.Row row, Loss loss, Supplier<Optional<PairProposal>> copies) {
        ProtectionGoal goal = row.goal().orElseThrow();
        return switch (loss) {
            case MISTAKE -> {
                Rhythm rhythm = Stream.of(Rhythm.values())
                        .filter(r -> r.minutes <= goal.loseMinutes())
                        .findFirst()
                        .orElse(Rhythm.FIVE);
                SnapshotRule rule = new SnapshotRule(
                        row.share().volume(), new Schedule(FROM, rhythm.rule), KEPT, "by goal {day} {time}");
                yield new Mending(
                        "take snapshots " + rhythm.words,
                        Optional.of(new RuleChange.SetRule(rule)),
                        "/protect/volumes/" + row.share().volume());
            }

            case VOLUME, SERVER, SITE ->
                row.copied()
                        ? new Mending(
                                "see how its copy stands",
                                Optional.empty(),
                                "/protect/pairs/" + row.share().volume())
                        : copies.get()
                                .map(Mending::copy)
                                .orElseGet(
                                        () -> new Mending("keep a copy elsewhere", Optional.empty(), "/protect/pairs"));
            case ACCOUNT ->
                new Mending(
                        "lock a snapshot",
                        Optional.empty(),
                        "/protect/volumes/" + row.share().volume());
        };
    }

    private static Mending copy(PairProposal proposal) {
        return new Mending(
                "keep a copy on pool " + proposal.pool() + ", sent every "
                        + Counted.of(proposal.pair().intervalMinutes(), "minute"),
                Optional.of(new PairChange.MakePair(proposal.pair(), proposal.pool())),
                "/protect/pairs");
    }
}
