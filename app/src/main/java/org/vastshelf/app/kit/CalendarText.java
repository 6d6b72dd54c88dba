package org.vastshelf.app.kit;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;

/** A calendar that others can read (RFC 5545), event by event. */
public final class CalendarText {

    private static final int LINE_OCTETS = 73;
    private static final DateTimeFormatter STAMP =
            DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss'Z'").withZone(ZoneOffset.UTC);

    private final StringBuilder text = new StringBuilder();
    private final Instant now;

    /**
     * An empty calendar.
     *
     * @param subject what it is about, in a word
     * @param now when it was made
     */
    public CalendarText(String subject, Instant now) {
        this.now = now;
        line("BEGIN:VCALENDAR");
        line("VERSION:2.0");
        line("PRODID:-//Vast Shelf//" + subject + "//EN");
    }

    /** What happens. */
    public record Event(String uid, String summary, String description) {}

    /** Something that takes a whole day. */
    public void on(LocalDate day, Event event) {
        line("BEGIN:VEVENT");
        head(event);
        line("DTSTART;VALUE=DATE:" + DateTimeFormatter.BASIC_ISO_DATE.format(day));
        line("DTEND;VALUE=DATE:" + DateTimeFormatter.BASIC_ISO_DATE.format(day.plusDays(1)));
        foot(event);
    }

    /** Something that happens at a moment. */
    public void at(Instant moment, Event event) {
        line("BEGIN:VEVENT");
        head(event);
        line("DTSTART:" + STAMP.format(moment));
        foot(event);
    }

    private void head(Event event) {
        line("UID:" + event.uid + "@vast-shelf");
        line("DTSTAMP:" + STAMP.format(now));
    }

    private void foot(Event event) {
        line("SUMMARY:" + escaped(event.summary));
        line("DESCRIPTION:" + escaped(event.description));
        line("END:VEVENT");
    }

    private static String escaped(String text) {
        return text.replace("\\", "\\\\")
                .replace(";", "\\;")
                .replace(",", "\\,")
                .replace("\n", "\\n");
    }

    /** Folds what is longer than a line may be, between characters. */
    private void line(String content) {
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

    /** The whole of it. */
    public String ended() {
        return text + "END:VCALENDAR\r\n";
    }
}
