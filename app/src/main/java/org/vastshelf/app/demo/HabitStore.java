package org.vastshelf.app.demo;

import static org.vastshelf.app.store.generated.Tables.AUDIT_LINE;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.zip.CRC32;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.road.Perusal;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation.Kind;

/** What the demo's people looked into and read on a day of the month with which it begins. */
@Component
class HabitStore {

    private static final int WHOLE = 1_000;

    private final DSLContext db;
    private final Map<LocalDate, Long> firsts = new ConcurrentHashMap<>();
    private final Map<LocalDate, List<Line>> lines = new ConcurrentHashMap<>();

    HabitStore(DSLContext db) {
        this.db = db;
    }

    private record Line(Kind kind, String person, String share, FilePath path, LocalDateTime at) {

        /** What one person does within an hour is told wholly or not at all. */
        boolean isTold(LocalDate day, int thousandths) {
            CRC32 hash = new CRC32();
            hash.update((person + day + at.getHour()).getBytes(StandardCharsets.UTF_8));
            return hash.getValue() % WHOLE < thousandths;
        }
    }

    /**
     * The same on another day.
     *
     * @param thousandths how much of it is told: a part of the people, and a part of their hours
     */
    List<Perusal.Item> like(LocalDate before, LocalDate day, int thousandths, List<String> people) {
        long later = ChronoUnit.DAYS.between(before, day);
        int part = (int) Math.sqrt(thousandths * (double) WHOLE);
        Set<String> some = people.stream()
                .filter(uid -> Math.floorMod((uid + day).hashCode(), WHOLE) < part)
                .collect(Collectors.toSet());
        return lines.computeIfAbsent(before, this::read).stream()
                .filter(line -> some.contains(line.person) && line.isTold(day, part))
                .map(line -> new Perusal.Item(
                        line.kind,
                        line.person,
                        line.share,
                        line.path,
                        line.at.toInstant(ZoneOffset.UTC).plus(later, ChronoUnit.DAYS)))
                .toList();
    }

    private List<Line> read(LocalDate day) {
        return db.select(AUDIT_LINE.OPERATION, AUDIT_LINE.PERSON, AUDIT_LINE.SHARE, AUDIT_LINE.PATH, AUDIT_LINE.AT)
                .from(AUDIT_LINE)
                .where(AUDIT_LINE.NUMBER.ge(first(day)))
                .and(AUDIT_LINE.NUMBER.lt(first(day.plusDays(1))))
                .and(AUDIT_LINE.OPERATION.in(Kind.READ.name(), Kind.LIST.name()))
                .and(AUDIT_LINE.VERDICT.eq("ALLOWED"))
                .orderBy(AUDIT_LINE.NUMBER)
                .fetch(row -> new Line(
                        Kind.valueOf(row.value1()),
                        row.value2(),
                        row.value3(),
                        new FilePath(new String(row.value4(), StandardCharsets.UTF_8)),
                        row.value5()));
    }

    /** The number of a day's first line: in that month they are in the order of their times. */
    private long first(LocalDate day) {
        return firsts.computeIfAbsent(day, this::find);
    }

    private long find(LocalDate day) {
        long low = 1;
        long high = db.select(DSL.coalesce(DSL.max(AUDIT_LINE.NUMBER), 0L))
                        .from(AUDIT_LINE)
                        .fetchSingle()
                        .value1()
                + 1;
        while (low < high) {
            long middle = (low + high) / 2;
            boolean isBefore =
                    db.fetchExists(AUDIT_LINE, AUDIT_LINE.NUMBER.eq(middle), AUDIT_LINE.AT.lt(day.atStartOfDay()));
            low = isBefore ? middle + 1 : low;
            high = isBefore ? high : middle;
        }
        return low;
    }
}
