package org.vastshelf.app.agenda;

import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateFollower;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.agenda.Agenda;
import org.vastshelf.core.agenda.Agenda.Entry;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;

/** Keeps the agenda in step with the estate: what changes in it falls due anew. */
@Component
class AgendaKeeping implements EstateFollower {

    private final AgendaStore agenda;
    private final ShelfClock clock;
    private final HistoryStore history;
    /** Asked for late: most works change the estate, which is what this follows. */
    private final ObjectProvider<DueWork> works;

    AgendaKeeping(AgendaStore agenda, ShelfClock clock, HistoryStore history, ObjectProvider<DueWork> works) {
        this.agenda = agenda;
        this.clock = clock;
        this.history = history;
        this.works = works;
    }

    @Override
    public void follow(Estate before, Estate after, Usage usage) {
        Set<DueKind> wanted = wanted();
        Map<Entry, Object> was = Agenda.causes(before);
        Map<Entry, Object> is = Agenda.causes(after);
        is.forEach((entry, cause) -> {
            if (wanted.contains(entry.kind()) && !cause.equals(was.get(entry))) {
                enter(after, usage, entry, clock.instant());
            }
        });
        was.keySet().stream().filter(entry -> !is.containsKey(entry)).forEach(agenda::drop);
    }

    /** What is missing falls due from now on; days whose history was not written are made up. */
    void complete(Estate estate, Usage usage) {
        Set<DueKind> wanted = wanted();
        List<Entry> there = agenda.all().stream().map(AgendaStore.Row::entry).toList();
        Set<Entry> missing = new HashSet<>(Agenda.causes(estate).keySet());
        there.forEach(missing::remove);
        missing.stream()
                .filter(entry -> wanted.contains(entry.kind()))
                .forEach(entry -> enter(estate, usage, entry, from(entry)));
        there.stream().filter(entry -> !wanted.contains(entry.kind())).forEach(agenda::drop);
    }

    private void enter(Estate estate, Usage usage, Entry entry, Instant after) {
        Agenda.next(estate, () -> usage, entry, after, ShelfClock.ZONE)
                .ifPresentOrElse(at -> agenda.enter(entry, at), () -> agenda.drop(entry));
    }

    private Instant from(Entry entry) {
        if (entry.kind().equals(DueKind.AGES)) {
            // Known from the first day on.
            return clock.instant().minus(Duration.ofDays(1));
        }
        return entry.kind().equals(DueKind.HISTORY)
                ? history.lastDay()
                        .map(day ->
                                day.plusDays(1).atStartOfDay(ShelfClock.ZONE).toInstant())
                        .orElseGet(clock::instant)
                : clock.instant();
    }

    private Set<DueKind> wanted() {
        return works.stream().filter(DueWork::isWanted).map(DueWork::kind).collect(Collectors.toSet());
    }
}
