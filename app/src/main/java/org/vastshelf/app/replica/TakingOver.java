package org.vastshelf.app.replica;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.orders.StepWork;
import org.vastshelf.app.replica.Replica.State;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.PairStep;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.replica.PairRoute;
import org.vastshelf.core.unit.Counted;

/**
 * Lets copies take over, and volumes go back. As planned, what is missing is sent first, and the last of it at the moment
 * of the change; in need, what the copy lacks is left behind, and noted file by file.
 */
@Component
class TakingOver implements StepWork {

    /** When no more than this would still take, the last of it is sent as places are changed. */
    private static final int LAST_SECONDS = 60;

    private final Replication replication;
    private final ReplicaStore store;
    private final FallingBack fallingBack;
    private final EstateStore estates;

    TakingOver(Replication replication, ReplicaStore store, FallingBack fallingBack, EstateStore estates) {
        this.replication = replication;
        this.store = store;
        this.fallingBack = fallingBack;
        this.estates = estates;
    }

    @Override
    public boolean does(Step step) {
        return step instanceof PairStep.SendMissing || step instanceof PairStep.SwitchPair;
    }

    @Override
    public Optional<Instant> portion(Task task, Instant at) {
        if (task.step() instanceof PairStep.SwitchPair change) {
            change(change, task.who(), at);
            return Optional.empty();
        }
        return send(((PairStep.SendMissing) task.step()).volume(), at);
    }

    /** Sends until little is missing; says when that has arrived. */
    private Optional<Instant> send(String volume, Instant at) {
        replication.turn(volume, at);
        Estate estate = estates.held().estate();
        ReplicaPair pair = pair(estate, volume);
        Replica replica = store.lock(volume).orElseThrow(() -> new IllegalStateException("no copy of " + volume));
        if (replica.isSending()) {
            return replica.hasArrived()
                    ? Optional.of(at.plusSeconds(LAST_SECONDS))
                    : Optional.of(replica.arrival().orElse(at.plusSeconds(LAST_SECONDS)));
        }
        double rate = PairRoute.of(estate, pair).bytesPerSecond();
        if (replica.baseAt().isPresent() && replication.missing(estate, replica) <= LAST_SECONDS * rate) {
            return Optional.empty();
        }
        if (rate <= 0 || pair.paused()) {
            return Optional.of(at.plusSeconds(LAST_SECONDS));
        }
        Replica sending = replication.begin(estate, pair, replica, at).at((long) rate);
        Replica named = pair.over() ? sending.in(State.GOING_BACK, "what changed is sent back", at) : sending;
        store.save(named);
        return named.arrival();
    }

    private static ReplicaPair pair(Estate estate, String volume) {
        return estate.find(Kinds.PAIR, volume)
                .orElseThrow(() -> new IllegalStateException("volume " + volume + " has no copy any more"));
    }

    private void change(PairStep.SwitchPair step, String who, Instant at) {
        Estate estate = estates.held().estate();
        ReplicaPair pair = pair(estate, step.volume());
        Replica replica = store.lock(step.volume())
                .map(r -> r.until(at))
                .orElseThrow(() -> new IllegalStateException("no copy of " + step.volume()));
        if (replica.baseAt().isEmpty()) {
            throw new Impossible("the copy of " + step.volume() + " holds nothing whole yet");
        }
        boolean leaves = step.inNeed() && replica.base() > 0;
        List<FallingBack.Gone> gone = leaves ? fallingBack.look(step.volume(), replica.base(), at) : List.of();
        EstateAnswer answer = estates.change((now, held) ->
                new EstateAnswer.Changed(step.apply(leaves ? withoutClones(now, step.volume(), replica.base()) : now)));
        if (answer instanceof EstateAnswer.Refused refused) {
            throw new Impossible(refused.because());
        }
        Replica based = leaves ? fallingBack.carryOut(replica, gone, who, at) : replication.common(pair, replica, at);
        State state = step.over() ? State.FAILED_OVER : State.IN_STEP;
        String cause = step.over()
                ? (step.inNeed() ? "taken over in need, " : "taken over as planned, ") + Counted.of(gone.size(), "file")
                        + " left behind"
                : "gone back to where it was";
        replication.noted(based.in(state, cause, at), at);
    }

    /** Snapshots that the copy does not have go: their clones, which stay where they are, have their blocks to themselves. */
    private static Estate withoutClones(Estate estate, String volume, int base) {
        Estate next = estate;
        for (CloneOf clone : estate.all(Kinds.CLONE).values()) {
            if (clone.source().equals(volume) && clone.snapshot() > base) {
                next = next.without(Kinds.CLONE, clone.volume());
            }
        }
        return next;
    }

    @Override
    public boolean undo(Task task) {
        return true;
    }

    @Override
    public String outcome(Task task) {
        if (!(task.step() instanceof PairStep.SwitchPair change) || !change.inNeed()) {
            return "";
        }
        return Counted.of(store.countLeft(change.volume()), "file") + " left behind, each listed with the pair.";
    }
}
