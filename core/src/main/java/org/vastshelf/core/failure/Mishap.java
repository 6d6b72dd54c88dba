package org.vastshelf.core.failure;

import java.util.Locale;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.unit.Bytes;

/** Something that happens to hardware outside of any order, mostly wanted by nobody. On the stand-in bench it can be made to happen. */
public sealed interface Mishap {

    String title();

    /** A drive stops answering. */
    record DriveFails(String drive) implements Mishap {
        @Override
        public String title() {
            return "Drive " + drive + " fails";
        }
    }

    /** A drive's counters worsen until it ails. */
    record DriveAils(String drive) implements Mishap {
        @Override
        public String title() {
            return "Drive " + drive + " begins to ail";
        }
    }

    /** Somebody takes a drive out of its bay. */
    record DrivePulled(String drive) implements Mishap {
        @Override
        public String title() {
            return "Drive " + drive + " is pulled";
        }
    }

    /** Somebody brings a new drive and puts it into an empty bay, or in place of a failed drive that no pool has. */
    record DriveBrought(String bay, DriveKind kind, Bytes size) implements Mishap {
        @Override
        public String title() {
            return "A new drive is put into bay " + bay;
        }
    }

    /** Blocks of a drive go bad; nothing tells until they are read. */
    record BlocksDamaged(String drive, int blocks) implements Mishap {
        @Override
        public String title() {
            return blocks + " blocks of drive " + drive + " go bad";
        }
    }

    record PowerCut(String server) implements Mishap {
        @Override
        public String title() {
            return "Power of " + server + " is cut";
        }
    }

    record PowerBack(String server) implements Mishap {
        @Override
        public String title() {
            return "Power of " + server + " is back";
        }
    }

    /**
     * What a link between sites carries from now on.
     *
     * @param one and other: names of the sites
     */
    record LinkChanges(String one, String other, double mibps, double roundTripMillis, double lossPermille, boolean cut)
            implements Mishap {
        @Override
        public String title() {
            return "The link between " + one + " and " + other
                    + (cut
                            ? " is cut"
                            : String.format(
                                    Locale.ROOT,
                                    " carries %.1f MiB/s, %.1f ms there and back, %.1f of 1,000 packets lost",
                                    mibps,
                                    roundTripMillis,
                                    lossPermille));
        }
    }

    /** Clients take this share of the drives' throughput from now on. */
    record ClientLoad(String server, int percent) implements Mishap {
        @Override
        public String title() {
            return "Clients of " + server + " take " + percent + " %";
        }
    }
}
