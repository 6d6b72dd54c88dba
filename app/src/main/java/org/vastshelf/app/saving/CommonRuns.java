package org.vastshelf.app.saving;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.agenda.Agenda;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.SavingRule;
import org.vastshelf.core.estate.Usage;

/** What saving rules do: begun by hand before their time, stopped, and looked at. */
@Service
public class CommonRuns {

    private static final int MOST_LISTED = 50;

    private final CommonRunStore runs;
    private final EstateStore estates;
    private final UsageStore usage;
    private final AgendaStore agenda;
    private final Transactions transactions;
    private final ShelfClock clock;
    private final Deeds deeds;

    CommonRuns(
            CommonRunStore runs,
            EstateStore estates,
            UsageStore usage,
            AgendaStore agenda,
            Transactions transactions,
            ShelfClock clock,
            Deeds deeds) {
        this.runs = runs;
        this.estates = estates;
        this.usage = usage;
        this.agenda = agenda;
        this.transactions = transactions;
        this.clock = clock;
        this.deeds = deeds;
    }

    /**
     * What a volume saves.
     *
     * @param rule empty where there is none
     * @param keptBytes what common units take
     * @param wholeBytes what the same files would take each for itself
     * @param runs the newest first
     */
    public record Saving(
            String volume,
            Optional<SavingRule> rule,
            long keptBytes,
            long wholeBytes,
            long savedBytes,
            List<CommonRun> runs) {}

    /** @throws NotFound when there is no such volume */
    public Saving of(String volume) {
        if (!estates.load().volumes().containsKey(volume)) {
            throw new NotFound("volume", volume);
        }
        Usage.Common common = usage.load().of(volume).common();
        return new Saving(
                volume,
                estates.load().find(Kinds.SAVING, volume),
                common.kept().value(),
                common.whole().value(),
                common.saved().value(),
                runs.of(volume, MOST_LISTED));
    }

    /**
     * Lets a rule do now what it would do at its time.
     *
     * @throws IllegalArgumentException when it is at it, or the volume has none
     */
    public void begin(String who, String volume) {
        transactions.run(() -> {
            if (estates.held().estate().find(Kinds.SAVING, volume).isEmpty()) {
                throw new IllegalArgumentException("volume " + volume + " has no saving rule");
            }
            if (runs.running(volume).isPresent()) {
                throw new IllegalArgumentException("a run on volume " + volume + " is under way");
            }
            runs.begin(volume, clock.instant());
            agenda.enter(new Agenda.Entry(DueKind.of(Kinds.SAVING), volume), clock.instant());
            deeds.done(who, Deeds.Kind.SAVING, "/lighten/volumes/" + volume, "run begun");
        });
    }

    /** Stops what is under way; what was done stays, and the rule goes on at its next time. */
    public void stop(String who, String volume) {
        transactions.run(() -> {
            if (runs.end(volume, CommonRun.State.STOPPED, who + " stopped it", clock.instant())) {
                deeds.done(who, Deeds.Kind.SAVING, "/lighten/volumes/" + volume, "run stopped");
            }
        });
    }
}
