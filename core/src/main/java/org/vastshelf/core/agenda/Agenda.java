package org.vastshelf.core.agenda;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.TieringRule;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.Rebuilds;
import org.vastshelf.core.failure.Scrubs;
import org.vastshelf.core.failure.SpareDuty;
import org.vastshelf.core.failure.WearOut;
import org.vastshelf.core.replica.PairRoute;

/** What falls due in an estate, and when. Orders, which are no part of it, are entered by whoever carries them out. */
public final class Agenda {

    /** What is due each day whatever the estate is like has no name of its own. */
    public static final String EVERYTHING = "";

    private Agenda() {}

    /**
     * One thing that falls due.
     *
     * @param key what it is about: name of a pool, a volume, a share
     */
    public record Entry(DueKind kind, String key) {}

    /** What makes a pool's hardware due: as long as it stays the same, so does the moment. */
    private record Hardware(
            Pool pool, List<Drive> drives, List<Rebuild> rebuilds, Optional<Scrub> scrub, FileServer server) {}

    /** All entries of an estate, each with what it follows from; an entry whose cause changes falls due anew. */
    public static Map<Entry, Object> causes(Estate estate) {
        Map<Entry, Object> causes = new LinkedHashMap<>();
        Stream.of(
                        DueKind.CHECK,
                        DueKind.KEPT,
                        DueKind.HELD,
                        DueKind.COMMON,
                        DueKind.BUCKETS,
                        DueKind.AGES,
                        DueKind.HISTORY)
                .forEach(kind -> causes.put(new Entry(kind, EVERYTHING), kind));
        estate.shares().keySet().forEach(share -> causes.put(new Entry(DueKind.TRAFFIC, share), share));
        Kinds.RULES.forEach(kind -> estate.all(kind)
                .forEach((key, rule) ->
                        rule.schedule().ifPresent(schedule -> causes.put(new Entry(DueKind.of(kind), key), schedule))));
        estate.all(Kinds.PAIR)
                .forEach((key, pair) ->
                        causes.put(new Entry(DueKind.REPLICA, key), List.of(pair, PairRoute.of(estate, pair))));
        estate.all(Kinds.TIERING)
                .forEach((key, rule) ->
                        rule.when().ifPresent(schedule -> causes.put(new Entry(DueKind.TIERING, key), schedule)));
        estate.pools()
                .forEach((key, pool) -> causes.put(
                        new Entry(DueKind.HARDWARE, key),
                        new Hardware(
                                pool,
                                estate.drives(pool.drives().toList()),
                                estate.rebuildsOf(key),
                                estate.find(Kinds.SCRUB, key),
                                estate.servers().get(pool.server()))));
        return causes;
    }

    /**
     * When an entry falls due next.
     *
     * @param usage asked for where it matters
     * @param after the moment that has been dealt with; what follows lies behind it, or at it where nothing has to pass
     * @return empty when it does not, as the estate is now
     */
    public static Optional<Instant> next(
            Estate estate, Supplier<Usage> usage, Entry entry, Instant after, ZoneId zone) {
        Optional<Kind<? extends Rule>> rule = Kinds.RULES.stream()
                .filter(kind -> DueKind.of(kind).equals(entry.kind()))
                .findFirst();
        if (rule.isPresent()) {
            return estate.find(rule.get(), entry.key())
                    .flatMap(Rule::schedule)
                    .flatMap(schedule -> schedule.next(after, zone));
        }
        if (entry.kind().equals(DueKind.TIERING)) {
            return estate.find(Kinds.TIERING, entry.key())
                    .flatMap(TieringRule::when)
                    .flatMap(schedule -> schedule.next(after, zone));
        }
        if (entry.kind().equals(DueKind.REPLICA)) {
            return estate.find(Kinds.PAIR, entry.key()).map(pair -> after);
        }
        if (entry.kind().equals(DueKind.HARDWARE)) {
            return hardware(estate, usage.get(), entry.key(), after);
        }
        if (entry.kind().equals(DueKind.TRAFFIC) && !estate.shares().containsKey(entry.key())) {
            return Optional.empty();
        }
        return Optional.of(midnight(after, zone));
    }

    /** The first midnight after a moment. */
    private static Instant midnight(Instant after, ZoneId zone) {
        LocalDate day = LocalDate.ofInstant(after, zone);
        return day.plusDays(1).atStartOfDay(zone).toInstant();
    }

    private static Optional<Instant> hardware(Estate estate, Usage usage, String name, Instant after) {
        Pool pool = estate.pools().get(name);
        if (pool == null) {
            return Optional.empty();
        }
        if (!SpareDuty.takeOverWaiting(estate, usage, name, after).told().isEmpty()) {
            return Optional.of(after);
        }
        if (estate.servers().get(pool.server()).dark()) {
            return Optional.empty();
        }
        return Stream.of(
                        estate.rebuildsOf(name).stream().limit(1).map(r -> Rebuilds.expectedEnd(estate, r)),
                        Scrubs.endOf(estate, usage, name).stream(),
                        WearOut.next(estate, pool).stream())
                .flatMap(moments -> moments)
                .min(Instant::compareTo)
                .map(at -> at.isBefore(after) ? after : at);
    }
}
