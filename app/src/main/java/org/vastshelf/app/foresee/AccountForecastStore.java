package org.vastshelf.app.foresee;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;
import static org.vastshelf.app.store.generated.Tables.ACCOUNT_HISTORY;
import static org.vastshelf.app.store.generated.Tables.FORECAST;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.jooq.impl.SQLDataType;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AccountRowStore;
import org.vastshelf.app.foresee.AccountForecasting.Holder;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.forecast.FillDates;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/** Keeps what is expected of accounts, beside that of all other spaces. */
@Component
class AccountForecastStore {

    private static final Field<String> NAME = DSL.lower(
            DSL.field("CONCAT(HEX({0}), HEX({1}))", SQLDataType.VARCHAR, ACCOUNT.RULE_HASH, ACCOUNT.HOLDER_HASH));

    private static final int AT_ONCE = 500;

    private final DSLContext db;
    private final ForecastStore forecasts;

    AccountForecastStore(DSLContext db, ForecastStore forecasts) {
        this.db = db;
        this.forecasts = forecasts;
    }

    /** An account with what is expected of it. */
    record Expected(Account account, Space space) {

        /** Whether its strictest level refuses, and does not only warn. */
        boolean refuses() {
            return account.rule().stopAt().or(account.rule()::graceAt).isPresent();
        }
    }

    /** Another whenever the level of an account is. */
    String levels() {
        return db.select(DSL.count(), DSL.sum(ACCOUNT.MOST_BYTES))
                .from(ACCOUNT)
                .fetchSingle()
                .toString();
    }

    /**
     * Accounts that have a level, a week of history and no forecast of this day, in the order of their hashes.
     *
     * @param after the last one that was dealt with; null to begin
     */
    List<Holder> due(@Nullable Holder after, LocalDate day, int limit) {
        Condition further = after == null
                ? DSL.trueCondition()
                : ACCOUNT.RULE_HASH
                        .gt(after.rule())
                        .or(ACCOUNT.RULE_HASH.eq(after.rule()).and(ACCOUNT.HOLDER_HASH.gt(after.holder())));
        return db.select(ACCOUNT.RULE_HASH, ACCOUNT.HOLDER_HASH, ACCOUNT.MOST_BYTES)
                .from(ACCOUNT)
                .leftJoin(FORECAST)
                .on(FORECAST.KIND.eq(HistoryStore.ACCOUNT), FORECAST.SPACE.eq(NAME))
                .where(further, ACCOUNT.MOST_BYTES.gt(0L))
                .and(DSL.exists(DSL.selectOne()
                        .from(ACCOUNT_HISTORY)
                        .where(ACCOUNT_HISTORY.RULE_HASH.eq(ACCOUNT.RULE_HASH))
                        .and(ACCOUNT_HISTORY.HOLDER_HASH.eq(ACCOUNT.HOLDER_HASH))
                        .and(ACCOUNT_HISTORY.DAY.eq(day.minusDays(History.LEAST_DAYS - 1L)))))
                .and(FORECAST.DAY
                        .isNull()
                        .or(FORECAST.DAY.ne(day))
                        .or(FORECAST.CAPACITY_BYTES.ne(ACCOUNT.MOST_BYTES))
                        .or(FORECAST.VERSION.ne(FillDates.VERSION)))
                .orderBy(ACCOUNT.RULE_HASH, ACCOUNT.HOLDER_HASH)
                .limit(limit)
                .fetch(row -> new Holder(row.value1(), row.value2(), Bytes.of(row.value3())));
    }

    void put(List<Space> spaces) {
        if (!spaces.isEmpty()) {
            forecasts.put(spaces);
        }
    }

    /** Drops what is expected of accounts that are no more; told apart here, since whoever deletes by a question locks. */
    void forget() {
        Set<String> there = new HashSet<>(db.select(NAME).from(ACCOUNT).fetch(NAME));
        List<String> gone = db
                .select(FORECAST.SPACE)
                .from(FORECAST)
                .where(FORECAST.KIND.eq(HistoryStore.ACCOUNT))
                .fetch(FORECAST.SPACE)
                .stream()
                .filter(space -> !there.contains(space))
                .toList();
        for (int from = 0; from < gone.size(); from += AT_ONCE) {
            db.deleteFrom(FORECAST)
                    .where(FORECAST.KIND.eq(HistoryStore.ACCOUNT))
                    .and(FORECAST.SPACE.in(gone.subList(from, Math.min(gone.size(), from + AT_ONCE))))
                    .execute();
        }
    }

    /** On these shares, who is full first coming first; without the course. */
    List<Expected> all(Estate estate, Collection<String> shares) {
        List<Expected> found = new ArrayList<>();
        db.select(ACCOUNT.fields())
                .select(FORECAST.fields())
                .from(ACCOUNT)
                .join(FORECAST)
                .on(FORECAST.KIND.eq(HistoryStore.ACCOUNT), FORECAST.SPACE.eq(NAME))
                .where(ACCOUNT.SHARE.in(shares))
                .orderBy(FORECAST.LIKELY.isNull(), FORECAST.LIKELY)
                .forEach(row -> expected(estate, row).ifPresent(found::add));
        return found;
    }

    /** The day on which the first account of each share is likely full, with whose it is. */
    Map<String, Expected> first(Estate estate) {
        Map<String, Expected> first = new HashMap<>();
        List<byte[]> refusing = estate.limits().values().stream()
                .filter(rule -> rule.stopAt().or(rule::graceAt).isPresent())
                .map(AccountRowStore::hash)
                .toList();
        Table<?> days = DSL.select(ACCOUNT.SHARE, DSL.min(FORECAST.LIKELY).as("first"))
                .from(ACCOUNT)
                .join(FORECAST)
                .on(FORECAST.KIND.eq(HistoryStore.ACCOUNT), FORECAST.SPACE.eq(NAME))
                .where(ACCOUNT.RULE_HASH.in(refusing))
                .groupBy(ACCOUNT.SHARE)
                .asTable("days");
        db.select(ACCOUNT.fields())
                .select(FORECAST.fields())
                .from(ACCOUNT)
                .join(FORECAST)
                .on(FORECAST.KIND.eq(HistoryStore.ACCOUNT), FORECAST.SPACE.eq(NAME))
                .join(days)
                .on(
                        days.field("share", String.class).eq(ACCOUNT.SHARE),
                        days.field("first", LocalDate.class).eq(FORECAST.LIKELY))
                .where(ACCOUNT.RULE_HASH.in(refusing))
                .orderBy(ACCOUNT.HOLDER)
                .forEach(row -> expected(estate, row)
                        .ifPresent(e -> first.putIfAbsent(e.account().rule().share(), e)));
        return first;
    }

    Optional<Account> account(Estate estate, String name) {
        byte[] hashes = HexFormat.of().parseHex(name);
        return db.selectFrom(ACCOUNT)
                .where(ACCOUNT.RULE_HASH.eq(Arrays.copyOf(hashes, 16)))
                .and(ACCOUNT.HOLDER_HASH.eq(Arrays.copyOfRange(hashes, 16, 32)))
                .fetchOptional()
                .flatMap(row -> AccountRowStore.account(estate, row));
    }

    private Optional<Expected> expected(Estate estate, Record row) {
        return AccountRowStore.account(estate, row.into(ACCOUNT))
                .map(account -> new Expected(
                        account,
                        forecasts.space(row.into(FORECAST), ForecastStore.NOTHING, ForecastStore.Details.NONE)));
    }
}
