package org.vastshelf.app.limit;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.Basis;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.estate.LimitRule;

/** Looks every night whether what accounts and volumes are said to hold is what the catalogue holds. */
@Component
public class AccountCheck implements DueWork {

    private final AccountCheckStore figures;
    private final AccountStore accounts;
    private final DiskAccounts onDisk;
    private final EstateStore estates;
    private final NoticeStore notices;
    private final ShelfClock clock;

    AccountCheck(
            AccountCheckStore figures,
            AccountStore accounts,
            DiskAccounts onDisk,
            EstateStore estates,
            NoticeStore notices,
            ShelfClock clock) {
        this.clock = clock;
        this.figures = figures;
        this.accounts = accounts;
        this.onDisk = onDisk;
        this.estates = estates;
        this.notices = notices;
    }

    /** A figure that did not agree, and was mended. */
    public record Drift(String what, long said, long counted) {
        String text() {
            return "%s was said to hold %,d bytes, the catalogue has %,d".formatted(what, said, counted);
        }
    }

    @Override
    public DueKind kind() {
        return DueKind.CHECK;
    }

    @Override
    public void act(String everything, Instant midnight) {
        mend(midnight);
    }

    @Override
    public boolean isOfNow() {
        return true;
    }

    /** Mends what drifted, tells of it, and says what it was. Nobody saves meanwhile. */
    public List<Drift> mend(Instant now) {
        List<Drift> drifts = new ArrayList<>();
        estates.change((estate, held) -> {
            drifts.clear();
            drifts.addAll(figures.folders(seen(estate)));
            seen(estate).stream()
                    .filter(rule -> rule.apart() != Apart.NOBODY)
                    .forEach(rule -> drifts.addAll(owners(rule)));
            estate.shares().values().forEach(share -> figures.volume(share).ifPresent(drifts::add));
            estate.volumes().keySet().forEach(volume -> drifts.addAll(onDisk.check(estate, volume)));
            return new EstateAnswer.Changed(estate);
        });
        if (!drifts.isEmpty()) {
            notices.tellAdministrators(
                    now,
                    drifts.size() + " figures had drifted and were mended",
                    String.join(". ", drifts.stream().map(Drift::text).toList()) + ".");
        }
        return drifts;
    }

    private static List<LimitRule> seen(Estate estate) {
        return estate.limits().values().stream()
                .filter(rule -> rule.basis() == Basis.AS_SEEN)
                .toList();
    }

    private List<Drift> owners(LimitRule rule) {
        List<Drift> drifts = new ArrayList<>();
        Map<String, Long> counted = new HashMap<>(accounts.owned(rule));
        Map<String, Long> saidBy = figures.said(rule);
        saidBy.keySet().forEach(owner -> counted.putIfAbsent(owner, 0L));
        counted.forEach((owner, bytes) -> {
            long said = saidBy.getOrDefault(owner, 0L);
            if (said != bytes) {
                drifts.add(new Drift(
                        "account " + rule.share() + rule.path() + " of "
                                + rule.apart().title() + " " + owner,
                        said,
                        bytes));
                accounts.set(new AccountStore.Key(rule, rule.path(), owner), bytes);
            }
        });
        return drifts;
    }
}
