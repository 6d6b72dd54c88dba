package org.vastshelf.app.build;

import java.util.List;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.lift.Lifts;

/** How the fast part of a pool is used. */
public record LiftView(String held, Figure served, List<Row> rides) {

    private static final String HOW =
            "Room: nine tenths of the fast part, less what the bulk part has no room for. A file rises by expected"
                    + " accesses per byte; one that is there already counts 1.25 times as busy. What is written anew"
                    + " begins on the bulk part.";

    /** One run of the lift. */
    public record Row(
            String at,
            String lasted,
            String filesUp,
            String up,
            String filesDown,
            String down,
            String waiting,
            String served) {}

    static LiftView of(Figures fmt, Lifts.Standing lift) {
        return new LiftView(
                fmt.size(lift.held()) + " of files lie on it; " + fmt.size(lift.room()) + " of its "
                        + fmt.size(lift.size()) + " can be taken.",
                Figure.of(served(fmt, lift)).why(HOW),
                lift.rides().stream().map(ride -> row(fmt, ride)).toList());
    }

    private static String served(Figures fmt, Lifts.Standing lift) {
        if (lift.rides().isEmpty()) {
            return "Its lift has not run yet. With the busiest files on it, as many as fit, it would serve about "
                    + fmt.percent(lift.expected()) + " of the accesses.";
        }
        Lifts.Ride last = lift.rides().getFirst();
        return "At its last run it came to serve " + fmt.percent(last.served())
                + " of the accesses; with the busiest files on it, as many as fit, it would be "
                + fmt.percent(last.possible()) + ".";
    }

    private static Row row(Figures fmt, Lifts.Ride ride) {
        return new Row(
                fmt.moment(ride.at()),
                fmt.duration(ride.lasted()),
                fmt.count(ride.risenFiles()),
                fmt.large(ride.risen()),
                fmt.count(ride.sunkFiles()),
                fmt.large(ride.sunk()),
                fmt.large(ride.waiting()),
                fmt.percent(ride.served()));
    }
}
