package org.vastshelf.app.ahead;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.forecast.OrderPlan;
import org.vastshelf.core.forecast.OrderPlan.Terms;

/** The orders of hardware, or of a service's room, that have to be placed within a year so that no pool is full. */
@Component
public class OrdersAhead {

    private static final int AHEAD_DAYS = 365;

    private final EstateStore estates;
    private final Forecasts forecasts;
    private final OrderTermsStore terms;
    private final ShelfClock clock;

    OrdersAhead(EstateStore estates, Forecasts forecasts, OrderTermsStore terms, ShelfClock clock) {
        this.estates = estates;
        this.forecasts = forecasts;
        this.terms = terms;
        this.clock = clock;
    }

    /**
     * One of them.
     *
     * @param late whether the latest day has passed
     */
    public record Ahead(String server, String pool, OrderPlan.Due due, boolean late) {}

    /** The next first. */
    public List<Ahead> all() {
        Estate estate = estates.load();
        Map<String, Terms> said = terms.all();
        LocalDate today = clock.today();
        return forecasts.poolsByDay().stream()
                .flatMap(space -> {
                    FileServer server = estate.servers()
                            .get(estate.pools().get(space.name()).server());
                    return OrderPlan.of(
                                    space.forecast().course(),
                                    space.capacity(),
                                    said.getOrDefault(server.name(), OrderTermsStore.assumed(server)),
                                    today,
                                    today.plusDays(AHEAD_DAYS))
                            .stream()
                            .map(due -> new Ahead(
                                    server.name(),
                                    space.name(),
                                    due,
                                    due.orderBy().isBefore(today)));
                })
                .sorted(Comparator.comparing((Ahead a) -> a.due.orderBy()).thenComparing(Ahead::pool))
                .toList();
    }
}
