package org.vastshelf.app.tier;

import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.Kinds;

/** Runs of tiering rules: begun by their schedule or by hand, and stopped. */
@Service
public class TierRuns {

    private static final int MOST_LISTED = 50;

    private final TierRunStore runs;
    private final EstateStore estates;
    private final Transactions transactions;
    private final ShelfClock clock;
    private final Deeds deeds;

    TierRuns(TierRunStore runs, EstateStore estates, Transactions transactions, ShelfClock clock, Deeds deeds) {
        this.runs = runs;
        this.estates = estates;
        this.transactions = transactions;
        this.clock = clock;
        this.deeds = deeds;
    }

    /** Begins a run, unless one of the rule is under way. */
    OptionalLong begin(String rule, String who) {
        return transactions.run(() -> {
            boolean known = estates.held().estate().find(Kinds.TIERING, rule).isPresent();
            return known ? runs.add(rule, who, clock.instant()) : OptionalLong.empty();
        });
    }

    /**
     * Begins a run by hand.
     *
     * @throws IllegalArgumentException when one is under way
     */
    public long run(String rule, String who) {
        return transactions.run(() -> {
            if (estates.load().find(Kinds.TIERING, rule).isEmpty()) {
                throw new NotFound("tiering rule", rule);
            }
            long id = begin(rule, who)
                    .orElseThrow(() -> new IllegalArgumentException("a run of '" + rule + "' is under way"));
            deeds.done(who, Deeds.Kind.TIERING, "/lighten/rules/" + rule, "run " + id + " begun");
            return id;
        });
    }

    /** Stops a run; what has left stays where it is. */
    public void stop(String rule, long id, String who) {
        find(rule, id);
        transactions.run(() -> {
            if (runs.end(id, TierRun.State.STOPPED, who + " stopped it", clock.instant())) {
                deeds.done(who, Deeds.Kind.TIERING, "/lighten/rules/" + rule, "run " + id + " stopped");
            }
        });
    }

    public TierRun find(String rule, long id) {
        return runs.find(id)
                .filter(run -> run.rule().equals(rule))
                .orElseThrow(() -> new NotFound("run of " + rule, String.valueOf(id)));
    }

    /** Those that something is in the way of. */
    public List<TierRun> waiting() {
        return runs.running().stream().filter(run -> run.again().isPresent()).toList();
    }

    /** The latest runs of a rule. */
    public List<TierRun> of(String rule) {
        return runs.of(rule, MOST_LISTED);
    }

    Map<String, TierRun> latest() {
        return runs.latest();
    }
}
