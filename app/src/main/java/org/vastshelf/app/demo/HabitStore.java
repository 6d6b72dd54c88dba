package org.vastshelf.app.demo;

import static org.vastshelf.app.store.generated.Tables.AUDIT_LINE;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.Record5;
import org.jooq.SelectConditionStep;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.road.Perusal;
import org.vastshelf.app.road.TreeRoad;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.standins.life.Rhythm;

/** What the demo's people looked into and read on a day of the month with which it begins. */
@Component
class HabitStore {

    private static final int WHOLE = 1_000;

    private final DSLContext db;
    private final Map<LocalDate, Long> firsts = new ConcurrentHashMap<>();
    private @Nullable Asked last;
    private List<Perusal.Item> told = List.of();
    private Map<LocalDate, List<Perusal.Item>> large = Map.of();

    HabitStore(DSLContext db) {
        this.db = db;
    }

    private record Asked(LocalDate day, Rhythm.Told told, List<String> people) {

        LocalDate before() {
            return Rhythm.like(day);
        }
    }

    /**
     * The same on another day: what one person does within an hour is told wholly or not at all, but what is large.
     *
     * @param told how much of it is told: a part of the people, and a part of their hours
     */
    synchronized List<Perusal.Item> like(LocalDate day, Rhythm.Told told, List<String> people) {
        // Both halves of a day ask for the same.
        Asked asked = new Asked(day, told, people);
        if (!asked.equals(last)) {
            this.told = read(asked);
            last = asked;
        }
        return this.told;
    }

    private List<Perusal.Item> read(Asked asked) {
        LocalDate day = asked.day;
        Set<Perusal.Item> items = new LinkedHashSet<>(part(asked));
        if (asked.told.large()) {
            Set<String> people = Set.copyOf(asked.people);
            large().getOrDefault(asked.before(), List.of()).stream()
                    .filter(item -> people.contains(item.person()) && Rhythm.isLarge(item.path(), day))
                    .forEach(items::add);
        }
        long later = ChronoUnit.DAYS.between(asked.before(), day);
        return items.stream().map(item -> item.later(Duration.ofDays(later))).toList();
    }

    private List<Perusal.Item> part(Asked asked) {
        String day = asked.day.toString();
        int part = (int) Math.sqrt(asked.told.thousandths() * (double) WHOLE);
        List<String> some = asked.people.stream()
                .filter(uid -> Math.floorMod((uid + day).hashCode(), WHOLE) < part)
                .toList();
        return lines(asked.before(), asked.before().plusDays(1))
                .and(AUDIT_LINE.PERSON.in(some))
                .and(AUDIT_LINE.OPERATION.in(Kind.READ.name(), Kind.LIST.name()))
                .and(DSL.condition(
                        "CRC32(CONCAT({0}, {1}, HOUR({2}))) % {3} < {4}",
                        AUDIT_LINE.PERSON, DSL.val(day), AUDIT_LINE.AT, DSL.inline(WHOLE), DSL.val(part)))
                .orderBy(AUDIT_LINE.NUMBER)
                .fetch(HabitStore::item);
    }

    /** By day, what is read of large files in the fortnight; of each the last time. */
    private Map<LocalDate, List<Perusal.Item>> large() {
        if (large.isEmpty()) {
            List<LocalDate> days = Rhythm.days();
            Set<TreeRoad.At> seen = new HashSet<>();
            large = lines(days.getFirst(), days.getLast().plusDays(1))
                    .and(AUDIT_LINE.OPERATION.eq(Kind.READ.name()))
                    .and(DSL.field("SUBSTRING_INDEX({0}, '.', -1)", String.class, AUDIT_LINE.PATH)
                            .in(Rhythm.large().stream().map(DSL::inline).toList()))
                    .orderBy(AUDIT_LINE.NUMBER.desc())
                    .fetch(HabitStore::item)
                    .stream()
                    .filter(item -> seen.add(new TreeRoad.At(item.share(), item.path())))
                    .collect(Collectors.groupingBy(item -> LocalDate.ofInstant(item.at(), ZoneOffset.UTC)));
        }
        return large;
    }

    /** What was allowed from the beginning of a day until that of another. */
    private SelectConditionStep<Record5<String, String, String, byte[], LocalDateTime>> lines(
            LocalDate from, LocalDate until) {
        return db.select(AUDIT_LINE.OPERATION, AUDIT_LINE.PERSON, AUDIT_LINE.SHARE, AUDIT_LINE.PATH, AUDIT_LINE.AT)
                .from(AUDIT_LINE)
                .where(AUDIT_LINE.NUMBER.ge(first(from)))
                .and(AUDIT_LINE.NUMBER.lt(first(until)))
                .and(AUDIT_LINE.VERDICT.eq("ALLOWED"));
    }

    private static Perusal.Item item(Record5<String, String, String, byte[], LocalDateTime> row) {
        return new Perusal.Item(
                Kind.valueOf(row.value1()),
                row.value2(),
                row.value3(),
                new FilePath(new String(row.value4(), StandardCharsets.UTF_8)),
                row.value5().toInstant(ZoneOffset.UTC));
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
