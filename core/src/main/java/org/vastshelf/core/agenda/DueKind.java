package org.vastshelf.core.agenda;

import java.util.List;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Rule;

/**
 * A kind of thing that falls due.
 *
 * @param name in the database and on pages
 */
public record DueKind(String name) {

    /** What people save in a day of the demo; by share. */
    public static final DueKind TRAFFIC = new DueKind("traffic");
    /** The next move of an order; by its number. */
    public static final DueKind ORDER = new DueKind("order");
    /** A rebuild or a scrub that ends, a hot spare that takes over; by pool. */
    public static final DueKind HARDWARE = new DueKind("hardware");
    /** The next turn of a replica pair; by its volume. */
    public static final DueKind REPLICA = new DueKind("replica");
    /** The next run of a tiering rule; by its name. */
    public static final DueKind TIERING = new DueKind("tiering");
    /** Whether accounts hold what files say, each midnight. */
    public static final DueKind CHECK = new DueKind("check of accounts");
    /** Whether kept bytes are what files refer to, each midnight. */
    public static final DueKind KEPT = new DueKind("check of kept bytes");
    /** Whether snapshots hold what files and folders say, each midnight. */
    public static final DueKind HELD = new DueKind("check of snapshots");
    /** Whether common units are what files use, each midnight. */
    public static final DueKind COMMON = new DueKind("check of common units");
    /** Whether what has left lies where it should, each midnight. */
    public static final DueKind BUCKETS = new DueKind("check of buckets");
    /** How old what shares hold is, each midnight. */
    public static final DueKind AGES = new DueKind("ages");
    /** What spaces hold at the end of a day. */
    public static final DueKind HISTORY = new DueKind("history");

    /** In the order in which they are done when several fall due at the same moment. */
    public static final List<DueKind> ALL = Stream.of(
                    Stream.of(TRAFFIC, HARDWARE, REPLICA, ORDER),
                    Kinds.RULES.stream().map(DueKind::of),
                    Stream.of(TIERING, CHECK, KEPT, HELD, COMMON, BUCKETS, AGES, HISTORY))
            .flatMap(kinds -> kinds)
            .toList();

    /** What rules of a kind want. */
    public static DueKind of(Kind<? extends Rule> rule) {
        return new DueKind(rule.name());
    }

    /** Its place among those that fall due at the same moment, from 0. */
    public int turn() {
        return ALL.indexOf(this);
    }

    @Override
    public String toString() {
        return name;
    }
}
