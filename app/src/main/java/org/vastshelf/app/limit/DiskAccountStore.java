package org.vastshelf.app.limit;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AccountRowStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.limit.Account;

/** Reads what is counted for accounts that go by what files take on disk. */
@Component
class DiskAccountStore {

    private static final int AT_ONCE = 1_000;

    private final DSLContext db;
    private final AccountStore accounts;

    DiskAccountStore(DSLContext db, AccountStore accounts) {
        this.db = db;
        this.accounts = accounts;
    }

    /** A file that shares units with others. */
    record Sharing(FilePath path, String owner, String group, int manner, Contents contents) {}

    /** Tells of each file of a share that shares units. */
    void sharing(String share, Consumer<Sharing> told) {
        try (var rows = db.select(FOLDER.PATH, FILE.NAME, FILE.OWNER, FILE.OWNER_GROUP, FILE.COMMON, FILE.EXTENTS)
                .from(CATALOGUE)
                .straightJoin(FILE)
                .on(FILE.CATALOGUE_NO.eq(CATALOGUE.NO))
                .straightJoin(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(FILE.CATALOGUE_NO), FOLDER.NO.eq(FILE.FOLDER_NO))
                .where(CATALOGUE.NAME.eq(share), FILE.COMMON.gt(0))
                .fetchSize(AT_ONCE)
                .fetchLazy()) {
            rows.forEach(row -> told.accept(new Sharing(
                    new FilePath(PathBytes.shown(PathBytes.child(row.value1(), row.value2()))),
                    row.value3(),
                    row.value4(),
                    row.value5(),
                    ContentsCode.read(row.value6()))));
        }
    }

    /** The accounts of a rule; nobody saves for them until the transaction has ended. */
    List<Account> locked(LimitRule rule) {
        return db.selectFrom(ACCOUNT)
                .where(ACCOUNT.RULE_HASH.eq(AccountRowStore.hash(rule)))
                .orderBy(ACCOUNT.HOLDER_HASH)
                .forUpdate()
                .fetch(row -> AccountRowStore.account(rule, row));
    }

    /** What files have to themselves, by account. */
    Map<AccountStore.Key, Long> own(LimitRule rule) {
        if (rule.apart() != Apart.NOBODY) {
            return accounts.owned(rule).entrySet().stream()
                    .collect(Collectors.toMap(
                            owned -> new AccountStore.Key(rule, rule.path(), owned.getKey()), Map.Entry::getValue));
        }
        return db.select(ACCOUNT.HOLDER, DSL.coalesce(FOLDER.SUM_ALLOCATED, 0L))
                .from(ACCOUNT)
                .join(CATALOGUE)
                .on(CATALOGUE.NAME.eq(ACCOUNT.SHARE))
                .leftJoin(FOLDER.forceIndex("folder_by_hash"))
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO), FOLDER.PATH_HASH.eq(ACCOUNT.HOLDER_HASH))
                .where(ACCOUNT.RULE_HASH.eq(AccountRowStore.hash(rule)))
                .fetchMap(
                        row -> new AccountStore.Key(rule, new FilePath(PathBytes.shown(row.value1())), ""),
                        row -> row.value2());
    }
}
