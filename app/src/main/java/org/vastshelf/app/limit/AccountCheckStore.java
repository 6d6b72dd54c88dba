package org.vastshelf.app.limit;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.VOLUME_USAGE;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AccountRowStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Share;

/** Compares what accounts and volumes are said to hold with what the catalogue holds, and mends what differs. */
@Component
class AccountCheckStore {

    private static final Field<Long> COUNTED = DSL.coalesce(FOLDER.SUM_BYTES, 0L);

    private final DSLContext db;

    AccountCheckStore(DSLContext db) {
        this.db = db;
    }

    /** Looks at the accounts of folders under some rules, which go by what people see. */
    List<AccountCheck.Drift> folders(Collection<LimitRule> rules) {
        List<AccountCheck.Drift> drifts = new ArrayList<>();
        db.select(ACCOUNT.RULE_HASH, ACCOUNT.HOLDER_HASH, ACCOUNT.SHARE, ACCOUNT.HOLDER, ACCOUNT.USED_BYTES, COUNTED)
                .from(ACCOUNT)
                .join(CATALOGUE)
                .on(CATALOGUE.NAME.eq(ACCOUNT.SHARE))
                .leftJoin(FOLDER.forceIndex("folder_by_hash"))
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO), FOLDER.PATH_HASH.eq(ACCOUNT.HOLDER_HASH))
                .where(ACCOUNT.USED_BYTES.ne(COUNTED), ACCOUNT.HOLDER_KIND.in(AccountStore.FOLDERS))
                .and(ACCOUNT.RULE_HASH.in(
                        rules.stream().map(AccountRowStore::hash).toList()))
                .forEach(row -> {
                    drifts.add(new AccountCheck.Drift(
                            "account " + row.value3() + PathBytes.shown(row.value4()), row.value5(), row.value6()));
                    db.update(ACCOUNT)
                            .set(ACCOUNT.USED_BYTES, row.value6())
                            .set(ACCOUNT.FULLNESS, AccountStore.fullness())
                            .where(ACCOUNT.RULE_HASH.eq(row.value1()), ACCOUNT.HOLDER_HASH.eq(row.value2()))
                            .execute();
                });
        return drifts;
    }

    /** What owners are said to hold under a rule. */
    Map<String, Long> said(LimitRule rule) {
        return db.select(ACCOUNT.HOLDER, ACCOUNT.USED_BYTES)
                .from(ACCOUNT)
                .where(ACCOUNT.RULE_HASH.eq(AccountRowStore.hash(rule)))
                .fetchMap(row -> PathBytes.shown(row.value1()), row -> row.value2());
    }

    Optional<AccountCheck.Drift> volume(Share share) {
        Long counted = db.select(FOLDER.SUM_ALLOCATED)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO), FOLDER.NO.eq(0))
                .where(CATALOGUE.NAME.eq(share.name()))
                .fetchOne(FOLDER.SUM_ALLOCATED);
        Long said = db.select(VOLUME_USAGE.LIVE_BYTES)
                .from(VOLUME_USAGE)
                .where(VOLUME_USAGE.VOLUME.eq(share.volume()))
                .fetchOne(VOLUME_USAGE.LIVE_BYTES);
        if (counted == null || counted.equals(said)) {
            return Optional.empty();
        }
        db.insertInto(VOLUME_USAGE)
                .set(VOLUME_USAGE.VOLUME, share.volume())
                .set(VOLUME_USAGE.LIVE_BYTES, counted)
                .set(VOLUME_USAGE.SNAPSHOT_BYTES, 0L)
                .onDuplicateKeyUpdate()
                .set(VOLUME_USAGE.LIVE_BYTES, counted)
                .execute();
        return Optional.of(new AccountCheck.Drift("volume " + share.volume(), said == null ? 0 : said, counted));
    }
}
