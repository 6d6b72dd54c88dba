package org.vastshelf.core.failure;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/**
 * Progress of rebuilds: in each pool one at a time, at the drive's write speed times what clients leave. Progress is a
 * function of time alone, so that a jump of the clock and a restart come to the same as waiting.
 */
public final class Rebuilds {

    private Rebuilds() {}

    /** The estate at a later time, and which drives were finished when. */
    public record Advanced(Estate estate, List<Finished> finished) {}

    /**
     * A rebuild that came to its end.
     *
     * @param lost blocks that could not be rebuilt, because too little was left of their rows
     */
    public record Finished(Rebuild rebuild, Instant at, int lost) {

        /** In words; protection is only said to be back when all of the pool's is. */
        public String text(Estate after) {
            String done = "Rebuild of " + rebuild.target() + " is done";
            Pool pool = after.pools().get(rebuild.pool());
            boolean whole = pool != null && PoolState.of(after, pool).standing() == PoolState.Standing.WHOLE;
            String blocks = lost == 0
                    ? ""
                    : "; " + Counted.of(lost, "block")
                            + " of it could not be rebuilt, too little was left of their rows";
            return done + blocks + "; pool " + rebuild.pool()
                    + (whole ? " has its protection back" : " has not got all of its protection back yet");
        }
    }

    /**
     * The estate with rebuilds and the counters of drives as far as they are at a time; rebuilds that would have ended by
     * then are left at their end.
     */
    public static Estate seen(Estate estate, Instant now) {
        Advanced advanced = advance(estate, now);
        Estate next = estate.withDrives(
                estate.drives().values().stream().map(d -> d.at(now)).toList());
        for (Rebuild rebuild : advanced.estate().rebuilds().values()) {
            next = next.with(Kinds.REBUILD, rebuild);
        }
        for (Finished finished : advanced.finished()) {
            next = next.with(Kinds.REBUILD, finished.rebuild());
        }
        return next;
    }

    public static Advanced advance(Estate estate, Instant now) {
        Estate next = estate;
        List<Finished> finished = new ArrayList<>();
        for (Pool pool : estate.pools().values()) {
            next = advance(next, pool, now, finished);
        }
        return new Advanced(next, finished);
    }

    private static Estate advance(Estate estate, Pool pool, Instant now, List<Finished> finished) {
        List<Rebuild> queue = estate.rebuildsOf(pool.name());
        if (queue.isEmpty()) {
            return estate;
        }
        FileServer server = estate.servers().get(pool.server());
        Estate next = estate;
        Instant at = queue.getFirst().asOf();
        for (int i = 0; i < queue.size(); i++) {
            Rebuild rebuild = queue.get(i);
            if (server.dark()) {
                next = next.with(Kinds.REBUILD, rebuild.at(rebuild.done(), now));
                continue;
            }
            Instant begin = i == 0 ? rebuild.asOf() : at.isAfter(rebuild.asOf()) ? at : rebuild.asOf();
            if (!begin.isBefore(now)) {
                next = next.with(Kinds.REBUILD, rebuild.at(rebuild.done(), begin.isAfter(now) ? now : begin));
                at = now;
                continue;
            }
            double rate = bytesASecond(estate, rebuild, server);
            double seconds = rebuild.todo().minusOrZero(rebuild.done()).value() / rate;
            Instant end = begin.plusMillis((long) Math.ceil(seconds * 1_000));
            if (end.isAfter(now)) {
                long written = (long) (Duration.between(begin, now).toMillis() / 1_000.0 * rate);
                Bytes done = rebuild.done().plus(Bytes.of(written)).min(rebuild.todo());
                next = next.with(Kinds.REBUILD, rebuild.at(done, now));
                at = now;
            } else {
                List<Long> lost = PoolBlocks.lostIn(next, pool.name(), rebuild.target());
                next = next.without(Kinds.REBUILD, rebuild.target()).withDrives(List.of(damaged(next, rebuild, lost)));
                finished.add(new Finished(rebuild.at(rebuild.todo(), end), end, lost.size()));
                at = end;
            }
        }
        return next;
    }

    /** What could not be rebuilt is as unreadable on the new drive as it was on the one it stands in for. */
    private static Drive damaged(Estate estate, Rebuild rebuild, List<Long> lost) {
        Drive target = estate.drives().get(rebuild.target());
        return target.withDamaged(Stream.concat(target.damaged().stream(), lost.stream())
                .distinct()
                .sorted()
                .toList());
    }

    /** Write speed of a rebuild: the drive's rate times (1 − share left to clients). */
    public static double bytesASecond(Estate estate, Rebuild rebuild, FileServer server) {
        Drive target = estate.drives().get(rebuild.target());
        return target.kind().rates().rebuildMiBps() * Bytes.MIB * (100 - server.loadPercent()) / 100.0;
    }

    /** When a pool's running rebuild is expected to end; waiting ones come after it. */
    public static Instant expectedEnd(Estate estate, Rebuild rebuild) {
        FileServer server =
                estate.servers().get(estate.pools().get(rebuild.pool()).server());
        double seconds = 0;
        Instant from = rebuild.asOf();
        for (Rebuild before : estate.rebuildsOf(rebuild.pool())) {
            seconds += before.todo().minusOrZero(before.done()).value() / bytesASecond(estate, before, server);
            if (before.target().equals(rebuild.target())) {
                break;
            }
        }
        return from.plusSeconds((long) Math.ceil(seconds));
    }
}
