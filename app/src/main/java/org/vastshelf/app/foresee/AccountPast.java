package org.vastshelf.app.foresee;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;
import static org.vastshelf.app.store.generated.Tables.ACCOUNT_HISTORY;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.jooq.impl.SQLDataType;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;

/**
 * Works out what the accounts of a new limit held before it was there, by the times of the files that they hold: what
 * was saved since was not there then. What was deleted since is not seen, so that growth is rather told too high.
 */
@Component
class AccountPast {

    private static final int DAY = 86_400;
    private static final int MOST_DAYS = 400;
    private static final int LEAST_DAYS = 60;
    private static final int MOST_ROWS = 1_000_000;

    private final DSLContext db;
    private final EstateStore estates;

    AccountPast(DSLContext db, EstateStore estates) {
        this.db = db;
        this.estates = estates;
    }

    /** For all rules whose accounts have no past yet, until the end of a day. */
    void workOut(LocalDate day) {
        for (LimitRule rule : estates.load().limits().values()) {
            byte[] hash = AccountStore.hash(rule);
            if (!db.fetchExists(ACCOUNT_HISTORY, ACCOUNT_HISTORY.RULE_HASH.eq(hash))) {
                workOut(rule, hash, day);
            }
        }
    }

    private void workOut(LimitRule rule, byte[] hash, LocalDate day) {
        Map<String, Long> used = db.select(ACCOUNT.HOLDER, ACCOUNT.USED_BYTES)
                .from(ACCOUNT)
                .where(ACCOUNT.RULE_HASH.eq(hash))
                .fetchMap(row -> PathBytes.shown(row.value1()), row -> row.value2());
        if (used.isEmpty()) {
            return;
        }
        int days = Math.clamp(MOST_ROWS / used.size(), LEAST_DAYS, MOST_DAYS);
        Map<String, TreeMap<Long, Long>> saved =
                rule.apart() == Apart.NOBODY ? byFolder(rule, day.minusDays(days)) : byOwner(rule, day.minusDays(days));
        LoadStore rows = AccountHistoryStore.rows();
        used.forEach((holder, now) -> {
            byte[] held = PathBytes.hash(PathBytes.of(holder));
            TreeMap<Long, Long> later = saved.getOrDefault(holder, new TreeMap<>());
            long last = day.toEpochDay();
            long left = now
                    - later.tailMap(last, false).values().stream()
                            .mapToLong(Long::longValue)
                            .sum();
            for (int back = 0; back < days; back++) {
                rows.bytes(hash)
                        .bytes(held)
                        .text(day.minusDays(back).toString())
                        .number(Math.max(0, left))
                        .endRow();
                left -= later.getOrDefault(last - back, 0L);
            }
        });
        db.connection(rows::flush);
    }

    private Map<String, TreeMap<Long, Long>> byFolder(LimitRule rule, LocalDate since) {
        Map<Integer, Optional<String>> holders = new HashMap<>();
        db.select(FOLDER.NO, FOLDER.PATH)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO))
                .where(CATALOGUE.NAME.eq(rule.share()))
                .forEach(row -> holders.put(row.value1(), holder(rule, PathBytes.shown(row.value2()))));
        return sums(rule, FILE.FOLDER_NO, since, no -> holders.getOrDefault(no, Optional.empty()));
    }

    private static Optional<String> holder(LimitRule rule, String folder) {
        return rule.accountFor(new FilePath(folder).child("file")).map(FilePath::text);
    }

    private Map<String, TreeMap<Long, Long>> byOwner(LimitRule rule, LocalDate since) {
        return sums(rule, rule.apart() == Apart.PERSON ? FILE.OWNER : FILE.OWNER_GROUP, since, Optional::of);
    }

    private <T> Map<String, TreeMap<Long, Long>> sums(
            LimitRule rule, Field<T> by, LocalDate since, Function<T, Optional<String>> holder) {
        Field<Long> day = DSL.field("{0} DIV {1}", SQLDataType.BIGINT, FILE.MODIFIED_AT, DSL.val(DAY));
        Condition recent = FILE.MODIFIED_AT.ge(since.atStartOfDay().toEpochSecond(ZoneOffset.UTC));
        Map<String, TreeMap<Long, Long>> sums = new HashMap<>();
        db.select(by, day, DSL.sum(FILE.BYTES))
                .from(CATALOGUE)
                .join(FILE)
                .on(FILE.CATALOGUE_NO.eq(CATALOGUE.NO))
                .where(CATALOGUE.NAME.eq(rule.share()), FILE.COUNTED.eq(1), recent)
                .groupBy(List.of(by, day))
                .forEach(row -> holder.apply(row.value1())
                        .ifPresent(of -> sums.computeIfAbsent(of, none -> new TreeMap<>())
                                .merge(row.value2(), row.value3().longValueExact(), Long::sum)));
        return sums;
    }
}
