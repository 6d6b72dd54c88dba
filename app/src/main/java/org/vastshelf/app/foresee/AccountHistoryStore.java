package org.vastshelf.app.foresee;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;
import static org.vastshelf.app.store.generated.Tables.ACCOUNT_HISTORY;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.AccountForecasting.Holder;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.forecast.History.DayUse;
import org.vastshelf.core.unit.Bytes;

/** Keeps what accounts held at the end of each day. */
@Component
public class AccountHistoryStore {

    private static final int HASH = 16;

    private final DSLContext db;

    AccountHistoryStore(DSLContext db) {
        this.db = db;
    }

    /** Rows that are gathered before they are loaded. */
    public static LoadStore rows() {
        return new LoadStore("account_history", "rule_hash,holder_hash,day,used_bytes");
    }

    /** Writes down what all hold; what is known of the day already stays. */
    void record(LocalDate day) {
        LoadStore rows = rows();
        db.select(ACCOUNT.RULE_HASH, ACCOUNT.HOLDER_HASH, ACCOUNT.USED_BYTES)
                .from(ACCOUNT)
                .forEach(row -> rows.bytes(row.value1())
                        .bytes(row.value2())
                        .text(day.toString())
                        .number(row.value3())
                        .endRow());
        db.connection(rows::flush);
    }

    /** Forgets the accounts of limits that are no more. */
    void forget() {
        List<byte[]> there = db.selectDistinct(ACCOUNT.RULE_HASH).from(ACCOUNT).fetch(ACCOUNT.RULE_HASH);
        db.selectDistinct(ACCOUNT_HISTORY.RULE_HASH).from(ACCOUNT_HISTORY).fetch(ACCOUNT_HISTORY.RULE_HASH).stream()
                .filter(rule -> there.stream().noneMatch(known -> Arrays.equals(known, rule)))
                .forEach(rule -> db.deleteFrom(ACCOUNT_HISTORY)
                        .where(ACCOUNT_HISTORY.RULE_HASH.eq(rule))
                        .execute());
    }

    /** The past of one, by the name that it has among spaces. */
    Optional<History> of(String key) {
        byte[] hashes = HexFormat.of().parseHex(key);
        return History.sinceLastGap(db.select(ACCOUNT_HISTORY.DAY, ACCOUNT_HISTORY.USED_BYTES)
                .from(ACCOUNT_HISTORY)
                .where(ACCOUNT_HISTORY.RULE_HASH.eq(Arrays.copyOf(hashes, HASH)))
                .and(ACCOUNT_HISTORY.HOLDER_HASH.eq(Arrays.copyOfRange(hashes, HASH, 2 * HASH)))
                .orderBy(ACCOUNT_HISTORY.DAY)
                .fetch(row -> new DayUse(row.value1(), Bytes.of(row.value2()))));
    }

    /**
     * The past of some accounts.
     *
     * @param holders in the order of their hashes
     */
    Map<Holder, History> of(List<Holder> holders, LocalDate from, LocalDate until) {
        Map<Holder, List<DayUse>> days = new LinkedHashMap<>();
        holders.forEach(holder -> days.put(holder, new ArrayList<>()));
        Map<String, Holder> byKey = new LinkedHashMap<>();
        holders.forEach(holder -> byKey.put(holder.key(), holder));
        db.select(
                        ACCOUNT_HISTORY.RULE_HASH,
                        ACCOUNT_HISTORY.HOLDER_HASH,
                        ACCOUNT_HISTORY.DAY,
                        ACCOUNT_HISTORY.USED_BYTES)
                .from(ACCOUNT_HISTORY)
                .where(between(holders.getFirst(), holders.getLast()), ACCOUNT_HISTORY.DAY.between(from, until))
                .orderBy(ACCOUNT_HISTORY.RULE_HASH, ACCOUNT_HISTORY.HOLDER_HASH, ACCOUNT_HISTORY.DAY)
                .forEach(row -> {
                    Holder holder = byKey.get(Holder.key(row.value1(), row.value2()));
                    if (holder != null) {
                        days.get(holder).add(new DayUse(row.value3(), Bytes.of(row.value4())));
                    }
                });
        Map<Holder, History> histories = new LinkedHashMap<>();
        days.forEach((holder, uses) -> History.sinceLastGap(uses).ifPresent(h -> histories.put(holder, h)));
        return histories;
    }

    /** Rows that lie together, and are found by the primary key. */
    private static Condition between(Holder first, Holder last) {
        if (Arrays.equals(first.rule(), last.rule())) {
            return ACCOUNT_HISTORY
                    .RULE_HASH
                    .eq(first.rule())
                    .and(ACCOUNT_HISTORY.HOLDER_HASH.between(first.holder(), last.holder()));
        }
        return ACCOUNT_HISTORY
                .RULE_HASH
                .eq(first.rule())
                .and(ACCOUNT_HISTORY.HOLDER_HASH.ge(first.holder()))
                .or(ACCOUNT_HISTORY.RULE_HASH.gt(first.rule()).and(ACCOUNT_HISTORY.RULE_HASH.lt(last.rule())))
                .or(ACCOUNT_HISTORY.RULE_HASH.eq(last.rule()).and(ACCOUNT_HISTORY.HOLDER_HASH.le(last.holder())));
    }
}
