package org.vastshelf.core.forecast;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.unit.Bytes;

/** When more room has to be ordered, so that it is there before a space is full. */
public final class OrderPlan {

    private static final int MOST_ORDERS = 60;
    private static final double HALF = 0.5;

    private OrderPlan() {}

    /**
     * How room is bought.
     *
     * @param leadDays from the order until the room is there, 0 to 730
     * @param lot in whole multiples of which it is bought, at least 1 byte
     * @param riskPercent odds that are put up with to be full before it is there, 1 to 50
     */
    public record Terms(int leadDays, Bytes lot, int riskPercent) {

        public static final int MOST_LEAD = 730;
        public static final int MOST_RISK = 50;

        public Terms {
            if (leadDays < 0 || leadDays > MOST_LEAD) {
                throw new IllegalArgumentException("lead time is " + leadDays + " days, must be 0 to " + MOST_LEAD);
            }
            if (lot.isZero()) {
                throw new IllegalArgumentException("the lot is 0 bytes, must be at least 1");
            }
            if (riskPercent < 1 || riskPercent > MOST_RISK) {
                throw new IllegalArgumentException("the risk is " + riskPercent + " %, must be 1 to " + MOST_RISK);
            }
        }
    }

    /**
     * One order to be placed.
     *
     * @param orderBy the latest day; on or before today when it is late already
     * @param needed the day on which the space may be full without it
     * @param amount so many whole lots
     * @param after room with it
     */
    public record Due(LocalDate orderBy, LocalDate needed, Bytes amount, Bytes after) {}

    /**
     * The orders of the next time, each of as many lots as last until the next order can have arrived, at least one.
     *
     * @param capacity room there is
     * @param today on which nothing can be ordered for yesterday
     * @param until orders that have to be placed by then
     */
    public static List<Due> of(Course course, Bytes capacity, Terms terms, LocalDate today, LocalDate until) {
        List<Due> orders = new ArrayList<>();
        Bytes room = capacity;
        LocalDate before = LocalDate.MIN;
        while (orders.size() < MOST_ORDERS) {
            Optional<LocalDate> full = course.full(room.value() - HALF, terms.riskPercent / 100.0);
            if (full.isEmpty() || full.get().minusDays(terms.leadDays).isAfter(until)) {
                return orders;
            }
            LocalDate latest = full.get().minusDays(terms.leadDays);
            LocalDate orderBy = latest.isBefore(before) ? before : latest;
            // What is ordered today arrives after the lead time, however late that is; until then nothing helps.
            LocalDate arrives = (orderBy.isBefore(today) ? today : orderBy).plusDays(terms.leadDays);
            Bytes amount = lots(course, room, terms, arrives);
            if (amount.isZero()) {
                return orders;
            }
            room = room.plus(amount);
            orders.add(new Due(orderBy, full.get(), amount, room));
            before = orderBy;
        }
        return orders;
    }

    /**
     * One lot, or as many as it takes to hold what is there when they arrive. What grows without bounds for years is never
     * held: it is at most as many as can be counted, and none when no further one can be.
     */
    private static Bytes lots(Course course, Bytes room, Terms terms, LocalDate arrives) {
        int ahead =
                (int) Math.clamp(java.time.temporal.ChronoUnit.DAYS.between(course.last(), arrives), 0, Course.HORIZON);
        double held = course.at(ahead, 1 - terms.riskPercent / 100.0) + course.above();
        long wanted = Math.max(1, (long) Math.ceil((held + 1 - room.value()) / terms.lot.value()));
        long most = (Long.MAX_VALUE - room.value()) / terms.lot.value();
        return terms.lot.times(Math.min(wanted, most));
    }
}
