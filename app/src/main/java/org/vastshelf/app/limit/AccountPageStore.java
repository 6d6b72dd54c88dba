package org.vastshelf.app.limit;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AccountRowStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.limit.Account;

/** Reads accounts for those who look at them: the fullest first, page by page, whatever their names. */
@Component
public class AccountPageStore {

    private final DSLContext db;

    AccountPageStore(DSLContext db) {
        this.db = db;
    }

    /**
     * Where to read.
     *
     * @param search what the holder's path has to contain; empty for anything
     * @param rule key of the only rule; empty for all
     */
    public record Wanted(String search, String rule) {
        public static final Wanted ALL = new Wanted("", "");
    }

    /**
     * A page of accounts.
     *
     * @param count of all that were wanted
     */
    public record Page(List<Account> accounts, int count) {}

    /** Accounts under these rules, the fullest first; those that only track come last, the largest first. */
    public Page page(Estate estate, List<LimitRule> rules, Wanted wanted, int from, int limit) {
        List<LimitRule> asked = rules.stream()
                .filter(r -> wanted.rule.isEmpty() || r.key().equals(wanted.rule))
                .toList();
        if (asked.isEmpty()) {
            return new Page(List.of(), 0);
        }
        Condition which = which(asked, wanted);
        List<Account> found = new ArrayList<>();
        db.selectFrom(ACCOUNT)
                .where(which)
                .orderBy(ACCOUNT.FULLNESS.desc(), ACCOUNT.USED_BYTES.desc(), ACCOUNT.HOLDER)
                .limit(limit)
                .offset(from)
                .forEach(row -> AccountRowStore.account(estate, row).ifPresent(found::add));
        return new Page(found, db.fetchCount(ACCOUNT, which));
    }

    private static Condition of(List<LimitRule> rules) {
        return ACCOUNT.RULE_HASH.in(rules.stream().map(AccountRowStore::hash).toList());
    }

    private static Condition which(List<LimitRule> rules, Wanted wanted) {
        Condition ofRules = of(rules);
        return wanted.search.isBlank()
                ? ofRules
                : ofRules.and(DSL.position(
                                DSL.lower(ACCOUNT.HOLDER.cast(String.class)),
                                wanted.search.strip().toLowerCase(java.util.Locale.ROOT))
                        .gt(0));
    }

    /** Accounts of these rules that are at least so full, the fullest first. */
    public List<Account> fullerThan(Estate estate, List<LimitRule> rules, double fullness, int limit) {
        List<Account> found = new ArrayList<>();
        db.selectFrom(ACCOUNT)
                .where(ACCOUNT.FULLNESS.ge(fullness), of(rules))
                .orderBy(ACCOUNT.FULLNESS.desc())
                .limit(limit)
                .forEach(row -> AccountRowStore.account(estate, row).ifPresent(found::add));
        return found;
    }

    /** What one holder has under one rule. */
    public Optional<Account> find(Estate estate, LimitRule rule, FilePath holder) {
        return db.selectFrom(ACCOUNT)
                .where(
                        ACCOUNT.RULE_HASH.eq(AccountRowStore.hash(rule)),
                        ACCOUNT.HOLDER_HASH.eq(PathBytes.hash(PathBytes.of(holder.text()))))
                .fetchOptional()
                .flatMap(row -> AccountRowStore.account(estate, row));
    }
}
