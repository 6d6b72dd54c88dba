package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.agenda.TogetherWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.time.Schedule;

/**
 * Snapshots that rules want; also those of moments that a jump of the clock passed, so that each day ends as it would
 * have.
 */
@Component
class SnapshotDue implements TogetherWork {

    /** So many are looked at at once. */
    private static final int MOST = 300;

    private final TakingByRule taking;
    private final EstateStore estates;
    private final AgendaStore agenda;
    private final ShelfClock clock;
    private final Map<String, Round> rounds = new ConcurrentHashMap<>();

    SnapshotDue(TakingByRule taking, EstateStore estates, AgendaStore agenda, ShelfClock clock) {
        this.agenda = agenda;
        this.clock = clock;
        this.taking = taking;
        this.estates = estates;
    }

    /**
     * What was worked out for all that have the same schedule.
     *
     * @param next when something of it falls due after these moments
     */
    private record Round(TakingByRule.Moments moments, Optional<Instant> next) {}

    @Override
    public DueKind kind() {
        return DueKind.of(Kinds.SNAPSHOTTING);
    }

    @Override
    public boolean isQuick() {
        return true;
    }

    @Override
    public void act(List<String> volumes, Instant at) {
        Instant until = clock.now();
        Instant other = agenda.firstOther(kind(), at).filter(until::isAfter).orElse(until);
        Estate estate = estates.load();
        volumes.forEach(rounds::remove);
        // Many have the same: what is worked out for one holds for the others.
        Map<Schedule, Round> known = new HashMap<>();
        List<TakingByRule.Wanted> wanted = volumes.stream()
                .flatMap(volume -> estate.find(Kinds.SNAPSHOTTING, volume).stream())
                .map(rule -> new TakingByRule.Wanted(
                        rule, known.computeIfAbsent(rule.when(), when -> round(when, at, other, until)).moments))
                .toList();
        taking.take(wanted);
        wanted.forEach(w -> rounds.put(w.volume(), known.get(w.rule().when())));
    }

    private static Round round(Schedule when, Instant at, Instant other, Instant until) {
        TakingByRule.Moments moments = moments(when, at, other, until);
        return new Round(moments, when.next(moments.same().getLast(), ShelfClock.ZONE));
    }

    /**
     * This one, and those that a jump of the clock passed: before anything else was to happen, and on the day after.
     */
    private static TakingByRule.Moments moments(Schedule when, Instant at, Instant other, Instant until) {
        Instant day = other.plus(ChronoUnit.DAYS.getDuration());
        Map<Boolean, List<Instant>> next =
                when.runs(at, day.isBefore(until) ? day : until, ShelfClock.ZONE, MOST).stream()
                        .collect(Collectors.partitioningBy(moment -> moment.isBefore(other)));
        List<Instant> same = new ArrayList<>(List.of(at));
        same.addAll(next.get(true));
        return new TakingByRule.Moments(same, next.get(false));
    }

    @Override
    public Optional<Instant> again(String volume, Instant at, Supplier<Optional<Instant>> byAgenda) {
        Round done = rounds.remove(volume);
        return done == null ? byAgenda.get() : done.next;
    }
}
