package org.vastshelf.app.ahead;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import org.vastshelf.app.ahead.OrdersAhead.Ahead;
import org.vastshelf.app.kit.Figures;

/** Orders to be placed as a calendar that others can read (RFC 5545): one day each, the latest one. */
final class OrderCalendar {

    private static final int LINE_OCTETS = 73;
    private static final DateTimeFormatter STAMP =
            DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss'Z'").withZone(ZoneOffset.UTC);

    private OrderCalendar() {}

    static String of(List<Ahead> orders, Instant now, Figures fmt) {
        StringBuilder text = new StringBuilder();
        line(text, "BEGIN:VCALENDAR");
        line(text, "VERSION:2.0");
        line(text, "PRODID:-//Vast Shelf//orders//EN");
        for (Ahead order : orders) {
            LocalDate day = order.due().orderBy();
            String amount = fmt.size(order.due().amount());
            line(text, "BEGIN:VEVENT");
            line(text, "UID:" + order.pool() + "-" + order.due().needed() + "@vast-shelf");
            line(text, "DTSTAMP:" + STAMP.format(now));
            line(text, "DTSTART;VALUE=DATE:" + DateTimeFormatter.BASIC_ISO_DATE.format(day));
            line(text, "DTEND;VALUE=DATE:" + DateTimeFormatter.BASIC_ISO_DATE.format(day.plusDays(1)));
            line(text, "SUMMARY:" + escaped("Order " + amount + " for pool " + order.pool()));
            line(
                    text,
                    "DESCRIPTION:"
                            + escaped("Latest day; without it the pool may be full on "
                                    + order.due().needed() + ", with it it has "
                                    + fmt.size(order.due().after()) + ". File server " + order.server() + "."));
            line(text, "END:VEVENT");
        }
        line(text, "END:VCALENDAR");
        return text.toString();
    }

    private static String escaped(String text) {
        return text.replace("\\", "\\\\")
                .replace(";", "\\;")
                .replace(",", "\\,")
                .replace("\n", "\\n");
    }

    /** Folds what is longer than a line may be, between characters. */
    private static void line(StringBuilder text, String content) {
        int octets = 0;
        for (int at = 0; at < content.length(); ) {
            int character = content.codePointAt(at);
            String one = Character.toString(character);
            int length = one.getBytes(StandardCharsets.UTF_8).length;
            if (octets + length > LINE_OCTETS) {
                text.append("\r\n ");
                octets = 1;
            }
            text.append(one);
            octets += length;
            at += one.length();
        }
        text.append("\r\n");
    }
}
