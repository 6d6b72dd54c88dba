package org.vastshelf.app.replica;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.ReplicaPair.Mode;
import org.vastshelf.core.replica.PairRoute;
import org.vastshelf.core.unit.Bytes;

/** How a replica pair stands, in words. */
record PairRow(
        String volume,
        String from,
        String to,
        String kind,
        Mark state,
        String cause,
        String age,
        String lacks,
        String rate) {

    static PairRow of(Figures fmt, Estate estate, ReplicaPair pair, Optional<Copies.Standing> standing) {
        PairRoute route = PairRoute.of(estate, pair);
        return new PairRow(
                pair.volume(),
                route.from().name(),
                route.to().name(),
                pair.mode() == Mode.IN_STEP
                        ? "in step"
                        : "every " + fmt.duration(Duration.ofMinutes(pair.intervalMinutes())),
                standing.map(Copies.Standing::mark).orElse(Mark.watch("not begun")),
                standing.map(Copies.Standing::cause).orElse(""),
                standing.flatMap(Copies.Standing::behind).map(fmt::duration).orElse("—"),
                standing.map(s -> fmt.size(Bytes.of(s.lacks()))).orElse("—"),
                route.obstacle().isPresent() ? "nothing" : fmt.size(Bytes.of((long) route.bytesPerSecond())) + "/s");
    }
}
