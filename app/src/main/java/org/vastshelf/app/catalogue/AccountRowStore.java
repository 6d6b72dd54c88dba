package org.vastshelf.app.catalogue;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import java.util.stream.Collectors;
import org.vastshelf.app.store.Digests;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.AccountRecord;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Stance;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.unit.Bytes;

/** How an account of a limit lies in its row. */
public final class AccountRowStore {

    private AccountRowStore() {}

    /** An account as its row says; empty where its rule is gone. */
    public static Optional<Account> account(Estate estate, AccountRecord row) {
        return Optional.ofNullable(estate.limits().get(row.getRuleKey())).map(rule -> account(rule, row));
    }

    public static Account account(LimitRule rule, AccountRecord row) {
        String holder = PathBytes.shown(row.getHolder());
        boolean folder = rule.apart() == Apart.NOBODY;
        return new Account(
                rule,
                folder ? new FilePath(holder) : rule.path(),
                folder ? "" : holder,
                Bytes.of(row.getUsedBytes()),
                new AccountState(
                        Optional.ofNullable(Times.instant(row.getGraceSince())),
                        Arrays.stream(row.getFired().split(","))
                                .filter(s -> !s.isEmpty())
                                .map(Stance::valueOf)
                                .collect(Collectors.toSet())));
    }

    public static byte[] hash(LimitRule rule) {
        return Digests.sixteen(rule.key().getBytes(StandardCharsets.UTF_8));
    }
}
