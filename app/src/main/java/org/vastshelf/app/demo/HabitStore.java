package org.vastshelf.app.demo;

import static org.vastshelf.app.store.generated.Tables.AUDIT_LINE;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
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
    private @Nullable Asked last;
    private List<Perusal.Item> told = List.of();

    HabitStore(DSLContext db) {
        this.db = db;
    }

    private record Asked(LocalDate before, LocalDate day, int thousandths, List<String> people) {}

    /**
     * The same on another day: what one person does within an hour is told wholly or not at all.
     *
     * @param thousandths how much of it is told: a part of the people, and a part of their hours
     */
    synchronized List<Perusal.Item> like(LocalDate before, LocalDate day, int thousandths, List<String> people) {
        // Both halves of a day ask for the same.
        Asked asked = new Asked(before, day, thousandths, people);
        if (!asked.equals(last)) {
            told = read(asked);
            last = asked;
        }
        return told;
    }

    private List<Perusal.Item> read(Asked asked) {
        LocalDate before = asked.before;
        LocalDate day = asked.day;
        long later = ChronoUnit.DAYS.between(before, day);
        int part = (int) Math.sqrt(asked.thousandths * (double) WHOLE);
        List<String> some = asked.people.stream()
                .filter(uid -> Math.floorMod((uid + day).hashCode(), WHOLE) < part)
                .toList();
        return db.select(AUDIT_LINE.OPERATION, AUDIT_LINE.PERSON, AUDIT_LINE.SHARE, AUDIT_LINE.PATH, AUDIT_LINE.AT)
                .from(AUDIT_LINE)
                .where(AUDIT_LINE.PERSON.in(some))
                .and(AUDIT_LINE.NUMBER.ge(first(before)))
                .and(AUDIT_LINE.NUMBER.lt(first(before.plusDays(1))))
                .and(AUDIT_LINE.OPERATION.in(Kind.READ.name(), Kind.LIST.name()))
                .and(AUDIT_LINE.VERDICT.eq("ALLOWED"))
                .and(DSL.condition(
                        "CRC32(CONCAT({0}, {1}, HOUR({2}))) % {3} < {4}",
                        AUDIT_LINE.PERSON, DSL.val(day.toString()), AUDIT_LINE.AT, DSL.inline(WHOLE), DSL.val(part)))
                .orderBy(AUDIT_LINE.NUMBER)
                .fetch(row -> new Perusal.Item(
                        Kind.valueOf(row.value1()),
                        row.value2(),
                        row.value3(),
                        new FilePath(new String(row.value4(), StandardCharsets.UTF_8)),
                        row.value5().toInstant(ZoneOffset.UTC).plus(later, ChronoUnit.DAYS)));
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
