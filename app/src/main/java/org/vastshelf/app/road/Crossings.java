package org.vastshelf.app.road;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Levels of accounts that an operation passed: remembered, and told to who caused it and who looks after the estate. */
@Component
class Crossings {

    private final AccountStore accounts;
    private final NoticeStore notices;

    Crossings(AccountStore accounts, NoticeStore notices) {
        this.accounts = accounts;
        this.notices = notices;
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
        some.forEach(growing -> growing.grown().forEach(account -> after(growing.operation, account, growing.now)));
    }

    /** Looks at an account as it is after the operation. */
    private void after(FileOperation operation, Account account, Instant now) {
        AccountState.Next next = account.state().after(account.rule(), account.used(), now);
        if (!next.state().equals(account.state())) {
            accounts.keep(account, next.state());
        }
        next.crossings().forEach(crossing -> tell(operation, account, crossing, now));
    }

    private void tell(FileOperation operation, Account account, AccountState.Crossing crossing, Instant now) {
        String subject = "%s of %s was %s"
                .formatted(crossing.stance().title(), account.title(), crossing.rising() ? "passed" : "left behind");
        String body = "It holds %s; the level is %s. %s"
                .formatted(
                        UnitSystem.BINARY.format(account.used()),
                        UnitSystem.BINARY.format(crossing.level()),
                        crossing.rising() ? crossing.stance().meaning() : "");
        String who = account.rule().apart() == Apart.PERSON ? account.owner() : operation.person();
        notices.tell(who, now, subject, body.strip());
        if (crossing.rising()) {
            notices.tellAdministrators(now, subject, body.strip());
        }
    }
}
