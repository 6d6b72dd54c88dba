package org.vastshelf.app.road;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.limit.Levels;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/** Lets accounts hold more or less by what an operation does, and looks at the levels that they pass by it. */
@Component
class Crossings {

    private final AccountStore accounts;
    private final Levels levels;

    Crossings(AccountStore accounts, Levels levels) {
        this.accounts = accounts;
        this.levels = levels;
    }

    /** Accounts that an operation lets hold so many bytes more, or fewer. */
    record Growing(FileOperation operation, Map<Account, Long> growths, Instant now) {
        List<Account> grown() {
            return growths.entrySet().stream()
                    .map(e -> e.getKey().holding(Bytes.of(e.getKey().used().value() + e.getValue())))
                    .toList();
        }
    }

    /** Lets accounts grow, and returns them as they are then. */
    List<Account> grow(FileOperation operation, Map<Account, Long> growths, Instant now) {
        Growing growing = new Growing(operation, growths, now);
        grow(List.of(growing));
        return growing.grown();
    }

    /** Lets accounts of several operations grow, of which no two are about the same account. */
    void grow(List<Growing> some) {
        Map<Account, Long> all = new LinkedHashMap<>();
        some.forEach(growing -> all.putAll(growing.growths));
        accounts.add(all);
        some.forEach(growing ->
                growing.grown().forEach(account -> levels.look(account, growing.operation.person(), growing.now)));
    }
}
