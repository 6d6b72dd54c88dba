package org.vastshelf.app.limit;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.common.CommonShiftStore;
import org.vastshelf.app.common.CommonSweep;
import org.vastshelf.app.common.CommonUnits;
import org.vastshelf.app.common.UnitUnion;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.Basis;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/**
 * Counts accounts that go by what files take on disk, where files share units: each unit once for each account that uses
 * it. That comes a moment after units were shared or given up. Until then an account is said to hold more than it does,
 * never less, so that no Stop is passed.
 */
@Component
public class DiskAccounts {

    private static final String WORK = "accounts on disk";
    private static final Duration LONGEST = Duration.ofSeconds(30);

    private final DiskAccountStore store;
    private final AccountStore accounts;
    private final Levels levels;
    private final CommonShiftStore shifts;
    private final CommonSweep sweep;
    private final CommonUnits units;
    private final EstateStore estates;
    private final LeaseStore leases;
    private final Transactions transactions;
    private final ShelfClock clock;

    DiskAccounts(
            DiskAccountStore store,
            AccountStore accounts,
            Levels levels,
            CommonShiftStore shifts,
            CommonSweep sweep,
            CommonUnits units,
            EstateStore estates,
            LeaseStore leases,
            Transactions transactions,
            ShelfClock clock) {
        this.store = store;
        this.accounts = accounts;
        this.levels = levels;
        this.shifts = shifts;
        this.sweep = sweep;
        this.units = units;
        this.estates = estates;
        this.leases = leases;
        this.transactions = transactions;
        this.clock = clock;
    }

    @Scheduled(fixedDelay = 1_000)
    void keepUp() {
        if (!shifts.volumes().isEmpty() && leases.take(WORK, LONGEST)) {
            try {
                count();
            } finally {
                leases.giveBack(WORK);
            }
        }
    }

    /** Counts all that is noted by now. */
    public void count() {
        shifts.volumes()
                .forEach(volume -> transactions.run(() -> count(estates.held().estate(), volume)));
    }

    private int count(Estate estate, String volume) {
        return shifts.take(volume) ? countAgain(estate, volume).size() : 0;
    }

    /** Counts a volume's accounts anew; says what had drifted. What was still to be counted has not. */
    List<AccountCheck.Drift> check(Estate estate, String volume) {
        if (estate.sharesOn(volume)
                .flatMap(share -> estate.limitsOn(share.name()))
                .allMatch(rule -> rule.basis() == Basis.AS_SEEN)) {
            return List.of();
        }
        sweep.sweep(volume);
        boolean pending = shifts.take(volume);
        List<AccountCheck.Drift> changed = countAgain(estate, volume);
        return pending ? List.of() : changed;
    }

    /** Counts what accounts of a volume's shares hold, and puts right what was not as it was said to be. */
    private List<AccountCheck.Drift> countAgain(Estate estate, String volume) {
        List<AccountCheck.Drift> changed = new ArrayList<>();
        estate.sharesOn(volume).forEach(share -> {
            List<LimitRule> rules = estate.limitsOn(share.name())
                    .filter(rule -> rule.basis() == Basis.ON_DISK)
                    .toList();
            if (!rules.isEmpty()) {
                Map<AccountStore.Key, UnitUnion> shared = shared(share.name(), rules);
                rules.forEach(rule -> put(rule, shared, changed));
            }
        });
        return changed;
    }

    private Map<AccountStore.Key, UnitUnion> shared(String share, List<LimitRule> rules) {
        Map<AccountStore.Key, UnitUnion> shared = new HashMap<>();
        store.sharing(share, file -> {
            var runs = units.runs(file.manner(), file.contents());
            for (LimitRule rule : rules) {
                String owner = switch (rule.apart()) {
                    case NOBODY -> "";
                    case PERSON -> file.owner();
                    case GROUP -> file.group();
                };
                if (rule.apart() == Apart.NOBODY || !owner.isEmpty()) {
                    rule.accountFor(file.path())
                            .ifPresent(folder -> shared.computeIfAbsent(
                                            new AccountStore.Key(rule, folder, owner), none -> new UnitUnion())
                                    .add(runs));
                }
            }
        });
        return shared;
    }

    private void put(LimitRule rule, Map<AccountStore.Key, UnitUnion> shared, List<AccountCheck.Drift> changed) {
        Instant now = clock.instant();
        Map<AccountStore.Key, Account> said = new HashMap<>();
        store.locked(rule).forEach(account -> said.put(AccountStore.Key.of(account), account));
        Map<AccountStore.Key, Long> own = store.own(rule);
        Set<AccountStore.Key> all = new HashSet<>(said.keySet());
        all.addAll(own.keySet());
        shared.keySet().stream().filter(key -> key.rule().equals(rule)).forEach(all::add);
        for (AccountStore.Key key : all) {
            long counted = own.getOrDefault(key, 0L)
                    + (shared.containsKey(key) ? shared.get(key).bytes() : 0);
            long before = said.containsKey(key) ? said.get(key).used().value() : 0;
            if (counted != before || !said.containsKey(key)) {
                accounts.set(key, counted);
                Account account = accounts.read(List.of(key)).getFirst().holding(Bytes.of(counted));
                changed.add(new AccountCheck.Drift("account " + account.title(), before, counted));
                levels.look(account, "", now);
            }
        }
    }
}
