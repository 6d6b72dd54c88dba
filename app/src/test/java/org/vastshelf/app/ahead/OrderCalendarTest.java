package org.vastshelf.app.ahead;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.ahead.OrdersAhead.Ahead;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.forecast.OrderPlan;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

class OrderCalendarTest {

    @Test
    void lines_are_folded_within_75_octets_and_read_whole_again() {
        String pool = "a-pool-with-a-rather-long-name-überall-" + "x".repeat(80);
        String text = OrderCalendar.of(
                List.of(new Ahead(
                        "hill, upper; hall",
                        pool,
                        new OrderPlan.Due(
                                LocalDate.of(2026, 12, 31), LocalDate.of(2027, 3, 31), Bytes.tib(20), Bytes.tib(60)),
                        false)),
                Instant.parse("2026-03-02T08:00:00Z"),
                new Figures(UnitSystem.BINARY));
        assertThat(text.split("\r\n")).allMatch(line -> line.getBytes(StandardCharsets.UTF_8).length <= 75);
        String unfolded = text.replace("\r\n ", "");
        assertThat(unfolded)
                .contains("DTSTAMP:20260302T080000Z\r\n")
                .contains("DTSTART;VALUE=DATE:20261231\r\nDTEND;VALUE=DATE:20270101\r\n")
                .contains("SUMMARY:Order 20.00 TiB for pool " + pool + "\r\n")
                .contains("File server hill\\, upper\\; hall.")
                .endsWith("END:VEVENT\r\nEND:VCALENDAR\r\n");
    }

    @Test
    void nothing_to_order_is_a_calendar_without_events() {
        assertThat(OrderCalendar.of(List.of(), Instant.EPOCH, new Figures(UnitSystem.BINARY)))
                .isEqualTo("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Vast Shelf//orders//EN\r\nEND:VCALENDAR\r\n");
    }
}
