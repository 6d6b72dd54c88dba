package org.vastshelf.app.limit;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.math.BigDecimal;
import java.nio.ByteBuffer;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.jooq.impl.SQLDataType;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AccountRowStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.common.CommonShiftStore;
import org.vastshelf.app.store.EstateFollower;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.ValuesStore;
import org.vastshelf.app.store.generated.tables.records.AccountRecord;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.Basis;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Stance;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.unit.Bytes;

/** Keeps accounts: who holds how much under which rule. What they hold is kept by increments, never counted anew. */
@Component
public class AccountStore implements EstateFollower {

    private static final String FOLDER_HOLDER = "FOLDER";
    private static final String CHILD_HOLDER = "CHILD";
    static final List<String> FOLDERS = List.of(FOLDER_HOLDER, CHILD_HOLDER);

    private final DSLContext db;
    private final CommonShiftStore shifts;

    AccountStore(DSLContext db, CommonShiftStore shifts) {
        this.db = db;
        this.shifts = shifts;
    }

    /**
     * An account by its rule and its holder.
     *
     * @param owner the person or group that has it; empty for a folder
     */
    public record Key(LimitRule rule, FilePath folder, String owner) {

        public static Key of(Account account) {
            return new Key(account.rule(), account.folder(), account.owner());
        }

        private byte[] holder() {
            return PathBytes.of(owner.isEmpty() ? folder.text() : owner);
        }

        private Identity identity() {
            return new Identity(AccountRowStore.hash(rule), PathBytes.hash(holder()));
        }

        private ValuesStore is(ValuesStore words) {
            return words.then("rule_hash = ")
                    .bytes(AccountRowStore.hash(rule))
                    .then(" AND holder_hash = ")
                    .bytes(PathBytes.hash(holder()));
        }

        private Condition is() {
            return ACCOUNT.RULE_HASH
                    .eq(AccountRowStore.hash(rule))
                    .and(ACCOUNT.HOLDER_HASH.eq(PathBytes.hash(holder())));
        }
    }

    /** Accounts as they are, for an operation that changes nothing. */
    public List<Account> read(List<Key> keys) {
        return keys.isEmpty() ? List.of() : accounts(keys, fetch(keys, false));
    }

    /** Accounts, locked until the transaction ends, in an order that is the same for everybody. */
    public List<Account> lock(List<Key> keys) {
        if (keys.isEmpty()) {
            return List.of();
        }
        List<AccountRecord> found = fetch(keys, true);
        if (found.size() < keys.size()) {
            keys.forEach(this::open);
            found = fetch(keys, true);
        }
        return accounts(keys, found);
    }

    private List<AccountRecord> fetch(List<Key> keys, boolean toChange) {
        var select = db.selectFrom(ACCOUNT.forceIndex("PRIMARY"))
                .where(DSL.or(keys.stream().map(Key::is).toList()))
                .orderBy(ACCOUNT.RULE_HASH, ACCOUNT.HOLDER_HASH);
        return (toChange ? select.forUpdate() : select).fetch();
    }

    /** An account of a folder that nobody saved to yet. */
    private void open(Key key) {
        db.insertInto(ACCOUNT)
                .set(ACCOUNT.RULE_HASH, AccountRowStore.hash(key.rule))
                .set(ACCOUNT.HOLDER_HASH, PathBytes.hash(key.holder()))
                .set(ACCOUNT.RULE_KEY, key.rule.key())
                .set(ACCOUNT.SHARE, key.rule.share())
                .set(ACCOUNT.HOLDER_KIND, kind(key.rule))
                .set(ACCOUNT.HOLDER, key.holder())
                .set(ACCOUNT.USED_BYTES, 0L)
                .set(ACCOUNT.MOST_BYTES, most(key.rule))
                .set(ACCOUNT.FULLNESS, 0.0)
                .set(ACCOUNT.FIRED, "")
                .onDuplicateKeyIgnore()
                .execute();
    }

    private static List<Account> accounts(List<Key> keys, List<AccountRecord> rows) {
        Map<Identity, AccountRecord> found = rows.stream()
                .collect(Collectors.toMap(row -> new Identity(row.getRuleHash(), row.getHolderHash()), row -> row));
        return keys.stream()
                .map(key -> Optional.ofNullable(found.get(key.identity()))
                        .map(row -> AccountRowStore.account(key.rule, row))
                        .orElseGet(() -> new Account(key.rule, key.folder, key.owner, Bytes.ZERO, AccountState.FRESH)))
                .toList();
    }

    /** What an account is found by. */
    private record Identity(ByteBuffer rule, ByteBuffer holder) {
        Identity(byte[] rule, byte[] holder) {
            this(ByteBuffer.wrap(rule), ByteBuffer.wrap(holder));
        }
    }

    /** Adds to what accounts hold, in one statement. */
    public void add(Map<Account, Long> growths) {
        Map<Key, Long> more = new LinkedHashMap<>();
        growths.forEach((account, growth) -> {
            if (growth != 0) {
                more.put(Key.of(account), growth);
            }
        });
        if (more.isEmpty()) {
            return;
        }
        // Columns are set from left to right: the fullness sees what was set before it.
        ValuesStore update = new ValuesStore("UPDATE account SET used_bytes = used_bytes + CASE");
        more.forEach(
                (key, growth) -> key.is(update.then(" WHEN ")).then(" THEN ").numbers(growth));
        update.then(" END, fullness = IF(most_bytes > 0, used_bytes / most_bytes, 0) WHERE ")
                .each(more.keySet(), " OR ", key -> key.is(update))
                .execute(db);
    }

    /** MariaDB sets columns from left to right: this sees what was set before it. */
    static Field<Double> fullness() {
        return DSL.field("IF({0} > 0, {1} / {0}, 0)", SQLDataType.DOUBLE, ACCOUNT.MOST_BYTES, ACCOUNT.USED_BYTES);
    }

    public void keep(Account account, AccountState state) {
        String fired = state.fired().stream().sorted().map(Stance::name).collect(Collectors.joining(","));
        db.update(ACCOUNT)
                .set(ACCOUNT.GRACE_SINCE, Times.stored(state.graceSince().orElse(null)))
                .set(ACCOUNT.FIRED, fired)
                .where(Key.of(account).is())
                .execute();
    }

    /** Accounts begin with their rule, follow its levels and end with it. Nobody saves meanwhile. */
    @Override
    public void follow(Estate before, Estate after, Usage usage) {
        before.limits().forEach((key, rule) -> {
            if (!after.limits().containsKey(key)) {
                end(rule);
            }
        });
        after.limits().forEach((key, rule) -> {
            LimitRule old = before.limits().get(key);
            if (old != null && old.basis() != rule.basis()) {
                end(old);
            }
            if (old == null || old.basis() != rule.basis()) {
                begin(rule);
                if (rule.basis() == Basis.ON_DISK) {
                    shifts.note(after.shares().get(rule.share()).volume());
                }
            } else if (!old.equals(rule)) {
                db.update(ACCOUNT)
                        .set(ACCOUNT.MOST_BYTES, most(rule))
                        .set(ACCOUNT.FULLNESS, fullness())
                        .where(ACCOUNT.RULE_HASH.eq(AccountRowStore.hash(rule)))
                        .execute();
            }
        });
    }

    private void end(LimitRule rule) {
        db.deleteFrom(ACCOUNT)
                .where(ACCOUNT.RULE_HASH.eq(AccountRowStore.hash(rule)))
                .execute();
    }

    /** Opens the accounts of a rule with what its folders hold by their sums. */
    void begin(LimitRule rule) {
        if (rule.apart() == Apart.NOBODY) {
            beginFolders(rule);
        } else {
            owned(rule).forEach((owner, bytes) -> set(new Key(rule, rule.path(), owner), bytes));
        }
    }

    /** What each owner has below the folder of a rule, counted by its files; those of nobody count for nobody. */
    Map<String, Long> owned(LimitRule rule) {
        Field<String> owner = rule.apart() == Apart.PERSON ? FILE.OWNER : FILE.OWNER_GROUP;
        byte[] below = PathBytes.of(rule.path().isRoot() ? "/" : rule.path() + "/");
        Field<BigDecimal> sum = DSL.sum(rule.basis() == Basis.AS_SEEN ? FILE.BYTES : FILE.ALLOCATED);
        return db.select(owner, sum)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO))
                .join(FILE)
                .on(FILE.CATALOGUE_NO.eq(CATALOGUE.NO), FILE.FOLDER_NO.eq(FOLDER.NO))
                .where(CATALOGUE.NAME.eq(rule.share()), FILE.COUNTED.eq(1), owner.ne(""))
                .and(FOLDER.PATH_HASH
                        .eq(hash(rule.path()))
                        .or(DSL.condition("LEFT({0}, {1}) = {2}", FOLDER.PATH, DSL.val(below.length), DSL.val(below))))
                .groupBy(owner)
                .fetchMap(row -> row.value1(), row -> row.value2().longValueExact());
    }

    /** Puts right what somebody is said to hold, who may have had no account. */
    void set(Key key, long bytes) {
        open(key);
        db.update(ACCOUNT)
                .set(ACCOUNT.USED_BYTES, bytes)
                .set(ACCOUNT.FULLNESS, fullness())
                .where(key.is())
                .execute();
    }

    private void beginFolders(LimitRule rule) {
        Condition which = rule.eachChild()
                ? FOLDER.NO
                        .ne(0)
                        .and(FOLDER.PARENT_NO.in(DSL.select(FOLDER.as("parent").NO)
                                .from(FOLDER.as("parent"))
                                .where(
                                        FOLDER.as("parent").CATALOGUE_NO.eq(CATALOGUE.NO),
                                        FOLDER.as("parent").PATH_HASH.eq(hash(rule.path())))))
                : FOLDER.PATH_HASH.eq(hash(rule.path()));
        long most = most(rule);
        Field<Long> sum = rule.basis() == Basis.AS_SEEN ? FOLDER.SUM_BYTES : FOLDER.SUM_ALLOCATED;
        db.insertInto(
                        ACCOUNT,
                        ACCOUNT.RULE_HASH,
                        ACCOUNT.HOLDER_HASH,
                        ACCOUNT.RULE_KEY,
                        ACCOUNT.SHARE,
                        ACCOUNT.HOLDER_KIND,
                        ACCOUNT.HOLDER,
                        ACCOUNT.USED_BYTES,
                        ACCOUNT.MOST_BYTES,
                        ACCOUNT.FULLNESS,
                        ACCOUNT.FIRED)
                .select(DSL.select(
                                DSL.val(AccountRowStore.hash(rule)),
                                FOLDER.PATH_HASH,
                                DSL.val(rule.key()),
                                DSL.val(rule.share()),
                                DSL.val(kind(rule)),
                                FOLDER.PATH,
                                sum,
                                DSL.val(most),
                                most == 0
                                        ? DSL.val(0.0)
                                        : DSL.field("{0} / {1}", SQLDataType.DOUBLE, sum, DSL.val(most)),
                                DSL.val(""))
                        .from(CATALOGUE)
                        .join(FOLDER)
                        .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO))
                        .where(CATALOGUE.NAME.eq(rule.share()))
                        .and(which))
                .onDuplicateKeyIgnore()
                .execute();
    }

    static long most(LimitRule rule) {
        return rule.stopAt()
                .or(rule::graceAt)
                .or(rule::warnAt)
                .map(Bytes::value)
                .orElse(0L);
    }

    private static String kind(LimitRule rule) {
        return switch (rule.apart()) {
            case NOBODY -> rule.eachChild() ? CHILD_HOLDER : FOLDER_HOLDER;
            case PERSON, GROUP -> rule.apart().name();
        };
    }

    static byte[] hash(FilePath folder) {
        return PathBytes.hash(PathBytes.of(folder.text()));
    }
}
