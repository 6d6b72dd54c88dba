package org.vastshelf.core.forecast;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.function.IntToDoubleFunction;
import org.vastshelf.core.unit.Bytes;

/** Something that may come, and what it would add to a space, or to its room. */
public sealed interface Supposition {

    /** Bytes that a space would hold besides, so many days after the last known one; less for what would go. */
    default double more(Course course, int ahead) {
        return 0;
    }

    /** Room that a space would have besides. */
    default double room(Course course, double room, int ahead) {
        return 0;
    }

    /** Days that have passed since a day, on a day ahead; none before it. */
    private static double since(Course course, LocalDate from, int ahead) {
        return Math.max(0, ChronoUnit.DAYS.between(from, course.last()) + ahead + 1.0);
    }

    /**
     * More people from a day on.
     *
     * @param each what one of them brings at once
     * @param eachYear what one of them adds in a year
     */
    record People(int count, Bytes each, Bytes eachYear, LocalDate from) implements Supposition {
        private static final double YEAR = 365.25;

        @Override
        public double more(Course course, int ahead) {
            double days = since(course, from, ahead);
            return days == 0 ? 0 : count * (each.value() + eachYear.value() * (days - 1) / YEAR);
        }
    }

    /**
     * A project that brings its bytes over some days, as much on each.
     *
     * @param days at least 1
     */
    record Project(Bytes bytes, LocalDate from, int days) implements Supposition {
        public Project {
            if (days < 1) {
                throw new IllegalArgumentException("the project takes " + days + " days, must be at least 1");
            }
        }

        @Override
        public double more(Course course, int ahead) {
            return bytes.value() * Math.min(1, since(course, from, ahead) / days);
        }
    }

    /** An archive that is removed on a day. */
    record Removal(Bytes bytes, LocalDate on) implements Supposition {
        @Override
        public double more(Course course, int ahead) {
            return since(course, on, ahead) > 0 ? -bytes.value() : 0;
        }
    }

    /**
     * Duplicates or aged files that go, up to as much as there is of them.
     *
     * @param aMonth in 30 days
     */
    record Sparing(Bytes aMonth, Bytes most, LocalDate from) implements Supposition {
        private static final double MONTH = 30;

        @Override
        public double more(Course course, int ahead) {
            return -Math.min(most.value(), aMonth.value() * since(course, from, ahead) / MONTH);
        }
    }

    /**
     * A growth rule: whenever what is expected passes so many per cent of the room, more comes, up to a ceiling.
     *
     * @param percent 50 to 99
     * @param step at least 1 byte
     */
    record Growth(int percent, Bytes step, Bytes ceiling) implements Supposition {
        public Growth {
            if (percent < 50 || percent > 99) {
                throw new IllegalArgumentException("the level is " + percent + " %, must be 50 to 99");
            }
            if (step.isZero()) {
                throw new IllegalArgumentException("the step is 0 bytes, must be at least 1");
            }
        }

        /** For the worst of the bounds, so that all of them meet the same room: it grows before it is full. */
        @Override
        public double room(Course course, double room, int ahead) {
            double expected = course.at(ahead, Course.LATE) + course.above();
            double wanted = Math.ceil(Math.max(0, expected * 100 / percent - room) / step.value()) * step.value();
            return Math.max(0, Math.min(wanted, ceiling.value() - room));
        }
    }

    /** What follows from several of them. */
    static Supposed of(Course course, Bytes capacity, List<Supposition> all) {
        Course moved = course.moved(ahead -> ahead == 0
                ? 0
                : all.stream().mapToDouble(s -> s.more(course, ahead)).sum());
        double[] rooms = new double[Course.HORIZON + 1];
        double most = capacity.value();
        for (int ahead = 0; ahead <= Course.HORIZON; ahead++) {
            int day = ahead;
            most = Math.max(
                    most,
                    capacity.value()
                            + all.stream()
                                    .mapToDouble(s -> s.room(moved, capacity.value(), day))
                                    .sum());
            rooms[ahead] = most;
        }
        return new Supposed(moved, ahead -> rooms[Math.min(ahead, Course.HORIZON)]);
    }

    /**
     * A course as it would be.
     *
     * @param room bytes by days ahead; it never shrinks
     */
    record Supposed(Course course, IntToDoubleFunction room) {

        private static final double HALF = 0.5;

        public java.util.Optional<LocalDate> full(double odds) {
            return course.full(ahead -> room.applyAsDouble(ahead) - HALF, odds);
        }
    }
}
