package org.vastshelf.app.foresee;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;
import static org.vastshelf.app.store.generated.Tables.ACCOUNT_HISTORY;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.jooq.impl.SQLDataType;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AccountRowStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.Basis;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.forecast.History;

/**
 * Works out what the accounts of a new limit held before it was there, by the times of the files that they hold: what
 * was saved since was not there then. What was deleted since is not seen, so that growth is rather told too high.
 */
@Component
class AccountPastStore {

    private static final int DAY = 86_400;
    private static final int MOST_DAYS = 400;
    private static final int LEAST_DAYS = 60;
    private static final int MOST_ROWS = 1_000_000;

    private final DSLContext db;
    private final EstateStore estates;

    AccountPastStore(DSLContext db, EstateStore estates) {
        this.db = db;
        this.estates = estates;
    }

    /** Where a rule's accounts hold files, and since when. */
    private record Asked(List<LimitRule> rules, LocalDate since) {}

    /** For all rules whose accounts have no past yet, until the end of a day; one share is gone through once. */
    void workOut(LocalDate day) {
        estates.load().limits().values().stream()
                .filter(rule -> !hasPast(rule, day))
                .collect(Collectors.groupingBy(rule -> List.of(rule.share(), rule.apart(), rule.basis())))
                .values()
                .forEach(rules -> workOut(rules, day));
    }

    /** Days that were written down since the limit is there are too few at first, and stay as they are. */
    private boolean hasPast(LimitRule rule, LocalDate day) {
        return db.fetchExists(
                ACCOUNT_HISTORY,
                ACCOUNT_HISTORY.RULE_HASH.eq(AccountRowStore.hash(rule)),
                ACCOUNT_HISTORY.DAY.le(day.minusDays(History.LEAST_DAYS - 1L)));
    }

    private void workOut(List<LimitRule> rules, LocalDate day) {
        Map<String, LimitRule> byHash = new HashMap<>();
        rules.forEach(rule -> byHash.put(HexFormat.of().formatHex(AccountRowStore.hash(rule)), rule));
        Map<LimitRule, Map<String, Long>> used = new HashMap<>();
        db.select(ACCOUNT.RULE_HASH, ACCOUNT.HOLDER, ACCOUNT.USED_BYTES)
                .from(ACCOUNT)
                .where(ACCOUNT.SHARE.eq(rules.getFirst().share()))
                .forEach(row -> Optional.ofNullable(byHash.get(HexFormat.of().formatHex(row.value1())))
                        .ifPresent(rule -> used.computeIfAbsent(rule, none -> new HashMap<>())
                                .put(PathBytes.shown(row.value2()), row.value3())));
        int accounts = used.values().stream().mapToInt(Map::size).sum();
        if (accounts == 0) {
            return;
        }
        int days = Math.clamp(MOST_ROWS / accounts, LEAST_DAYS, MOST_DAYS);
        Asked asked = new Asked(rules, day.minusDays(days));
        Map<LimitRule, Map<String, TreeMap<Long, Long>>> saved =
                rules.getFirst().apart() == Apart.NOBODY ? byFolder(asked) : byOwner(asked);
        LoadStore rows = AccountHistoryStore.rows();
        used.forEach((rule, holders) -> holders.forEach((holder, now) -> write(
                rows,
                rule,
                holder,
                now,
                saved.getOrDefault(rule, Map.of()).getOrDefault(holder, new TreeMap<>()),
                day,
                days)));
        db.connection(rows::flush);
    }

    private static void write(
            LoadStore rows,
            LimitRule rule,
            String holder,
            long now,
            TreeMap<Long, Long> saved,
            LocalDate day,
            int days) {
        byte[] hash = AccountRowStore.hash(rule);
        byte[] held = PathBytes.hash(PathBytes.of(holder));
        long last = day.toEpochDay();
        long left = now
                - saved.tailMap(last, false).values().stream()
                        .mapToLong(Long::longValue)
                        .sum();
        for (int back = 0; back < days; back++) {
            rows.bytes(hash)
                    .bytes(held)
                    .text(day.minusDays(back).toString())
                    .number(Math.max(0, left))
                    .endRow();
            left -= saved.getOrDefault(last - back, 0L);
        }
    }

    /** What is saved in a folder counts for all rules on it and above it. */
    private Map<LimitRule, Map<String, TreeMap<Long, Long>>> byFolder(Asked asked) {
        Map<String, LimitRule> plain = new HashMap<>();
        Map<String, LimitRule> children = new HashMap<>();
        asked.rules.forEach(
                rule -> (rule.eachChild() ? children : plain).put(rule.path().text(), rule));
        Map<Integer, Map<LimitRule, String>> holders = new HashMap<>();
        db.select(FOLDER.NO, FOLDER.PATH)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO))
                .where(CATALOGUE.NAME.eq(asked.rules.getFirst().share()))
                .forEach(row -> holders.put(
                        row.value1(), holders(plain, children, new FilePath(PathBytes.shown(row.value2())))));
        return sums(asked, FILE.FOLDER_NO, no -> holders.getOrDefault(no, Map.of()));
    }

    private static Map<LimitRule, String> holders(
            Map<String, LimitRule> plain, Map<String, LimitRule> children, FilePath folder) {
        Map<LimitRule, String> found = new HashMap<>();
        for (FilePath at = folder; ; at = at.parent()) {
            String path = at.text();
            Optional.ofNullable(plain.get(path)).ifPresent(rule -> found.put(rule, path));
            if (at.isRoot()) {
                return found;
            }
            Optional.ofNullable(children.get(at.parent().text())).ifPresent(rule -> found.put(rule, path));
        }
    }

    private Map<LimitRule, Map<String, TreeMap<Long, Long>>> byOwner(Asked asked) {
        Field<String> by = asked.rules.getFirst().apart() == Apart.PERSON ? FILE.OWNER : FILE.OWNER_GROUP;
        return sums(asked, by, owner -> asked.rules.stream().collect(Collectors.toMap(rule -> rule, rule -> owner)));
    }

    private <T> Map<LimitRule, Map<String, TreeMap<Long, Long>>> sums(
            Asked asked, Field<T> by, Function<T, Map<LimitRule, String>> holders) {
        Field<Long> day = DSL.field("{0} DIV {1}", SQLDataType.BIGINT, FILE.MODIFIED_AT, DSL.val(DAY));
        Condition recent = FILE.MODIFIED_AT.ge(asked.since.atStartOfDay().toEpochSecond(ZoneOffset.UTC));
        Map<LimitRule, Map<String, TreeMap<Long, Long>>> sums = new HashMap<>();
        db.select(by, day, DSL.sum(asked.rules.getFirst().basis() == Basis.AS_SEEN ? FILE.BYTES : FILE.ALLOCATED))
                .from(CATALOGUE)
                .join(FILE)
                .on(FILE.CATALOGUE_NO.eq(CATALOGUE.NO))
                .where(CATALOGUE.NAME.eq(asked.rules.getFirst().share()), FILE.COUNTED.eq(1), recent)
                .groupBy(List.of(by, day))
                .forEach(row -> holders.apply(row.value1())
                        .forEach((rule, holder) -> sums.computeIfAbsent(rule, none -> new HashMap<>())
                                .computeIfAbsent(holder, none -> new TreeMap<>())
                                .merge(row.value2(), row.value3().longValueExact(), Long::sum)));
        return sums;
    }
}
