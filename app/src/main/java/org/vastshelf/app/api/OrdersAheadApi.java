package org.vastshelf.app.api;

import java.time.LocalDate;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.ahead.OrdersAhead;

/** The orders that have to be placed within a year. */
@RestController
class OrdersAheadApi {

    private final OrdersAhead ahead;

    OrdersAheadApi(OrdersAhead ahead) {
        this.ahead = ahead;
    }

    /**
     * One of them.
     *
     * @param late whether the latest day has passed
     * @param needed when the pool may be full without it
     * @param afterBytes room with it
     */
    record Order(
            LocalDate orderBy,
            boolean late,
            String server,
            String pool,
            long amountBytes,
            LocalDate needed,
            long afterBytes) {}

    @GetMapping("/api/v1/orders-ahead")
    List<Order> orders() {
        return ahead.all().stream()
                .map(a -> new Order(
                        a.due().orderBy(),
                        a.late(),
                        a.server(),
                        a.pool(),
                        a.due().amount().value(),
                        a.due().needed(),
                        a.due().after().value()))
                .toList();
    }
}
