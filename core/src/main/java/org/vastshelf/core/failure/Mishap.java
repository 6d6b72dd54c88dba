package org.vastshelf.core.failure;

/** Something that happens to hardware, wanted by nobody. On the stand-in bench it can be made to happen. */
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

    /** Clients take this share of the drives' throughput from now on. */
    record ClientLoad(String server, int percent) implements Mishap {
        @Override
        public String title() {
            return "Clients of " + server + " take " + percent + " %";
        }
    }
}
