package org.vastshelf.app.limit;

import java.time.Instant;
import org.springframework.stereotype.Component;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.unit.UnitSystem;

/** Levels of accounts that are passed: remembered, and told to who caused it and who looks after the estate. */
@Component
public class Levels {

    private final AccountStore accounts;
    private final NoticeStore notices;

    Levels(AccountStore accounts, NoticeStore notices) {
        this.accounts = accounts;
        this.notices = notices;
    }

    /**
     * Looks at an account as it has come to be.
     *
     * @param person who caused it; empty where nobody did
     */
    public void look(Account account, String person, Instant now) {
        AccountState.Next next = account.state().after(account.rule(), account.used(), now);
        if (!next.state().equals(account.state())) {
            accounts.keep(account, next.state());
        }
        next.crossings().forEach(crossing -> tell(person, account, crossing, now));
    }

    private void tell(String person, Account account, AccountState.Crossing crossing, Instant now) {
        String subject = "%s of %s was %s"
                .formatted(crossing.stance().title(), account.title(), crossing.rising() ? "passed" : "left behind");
        String body = "It holds %s%s; the level is %s. %s"
                .formatted(
                        UnitSystem.BINARY.format(account.used()),
                        account.rule().basis().behind(),
                        UnitSystem.BINARY.format(crossing.level()),
                        crossing.rising() ? crossing.stance().meaning() : "");
        String who = account.rule().apart() == Apart.PERSON ? account.owner() : person;
        if (!who.isEmpty()) {
            notices.tell(who, now, subject, body.strip());
        }
        if (crossing.rising()) {
            notices.tellAdministrators(now, subject, body.strip());
        }
    }
}
