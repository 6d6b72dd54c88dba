package org.vastshelf.app.away;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.away.BucketReport.Found;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.cold.Buckets;
import org.vastshelf.app.cold.ColdStores;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.ShortText;

/**
 * Whether what has left lies where it should, each midnight and when somebody asks. The agenda only notes that it is
 * wanted: a store may take its time, and nothing else waits for it.
 */
@Component
public class BucketCheck implements DueWork {

    private static final Logger LOG = LoggerFactory.getLogger(BucketCheck.class);
    private static final String NIGHT = "(each night)";
    private static final Duration LEASE = Duration.ofSeconds(60);
    private static final int LONGEST = 1_000;

    private final BucketCheckStore checks;
    private final Reconciling reconciling;
    private final ColdStores stores;
    private final Buckets buckets;
    private final EstateStore estates;
    private final LeaseStore leases;
    private final NoticeStore notices;
    private final Deeds deeds;
    private final ShelfClock clock;
    private final Transactions transactions;

    BucketCheck(
            BucketCheckStore checks,
            Reconciling reconciling,
            ColdStores stores,
            Buckets buckets,
            EstateStore estates,
            LeaseStore leases,
            NoticeStore notices,
            Deeds deeds,
            ShelfClock clock,
            Transactions transactions) {
        this.checks = checks;
        this.reconciling = reconciling;
        this.stores = stores;
        this.buckets = buckets;
        this.estates = estates;
        this.leases = leases;
        this.notices = notices;
        this.deeds = deeds;
        this.clock = clock;
        this.transactions = transactions;
    }

    @Override
    public DueKind kind() {
        return DueKind.BUCKETS;
    }

    @Override
    public void act(String everything, Instant midnight) {
        estates.held().estate().all(Kinds.COLD_STORE).keySet().forEach(store -> checks.ask(store, NIGHT, midnight));
    }

    @Override
    public boolean isOfNow() {
        return true;
    }

    /** Asks for a comparison, unless one waits or is under way. */
    public BucketReport ask(String store, String who) {
        stores.find(store);
        return transactions.run(() -> {
            estates.held();
            if (checks.ask(store, who, clock.instant())) {
                deeds.done(
                        who,
                        Deeds.Kind.COLD_STORE,
                        "/lighten/stores/" + store + "/objects",
                        "a comparison of the bucket with what is known was asked for");
            }
            return checks.of(store, 1).getFirst();
        });
    }

    /** The latest of a store, the newest first. */
    public List<BucketReport> of(String store, int most) {
        stores.find(store);
        return checks.of(store, most);
    }

    /** Does what waits; of several nodes one does. */
    @Scheduled(fixedDelay = 2_000)
    public void work() {
        for (BucketReport open : checks.open()) {
            String lease = "bucket " + open.store();
            if (leases.take(lease, LEASE)) {
                try {
                    compare(open, () -> leases.take(lease, LEASE));
                } finally {
                    leases.giveBack(lease);
                }
            }
        }
    }

    private void compare(BucketReport open, Runnable alive) {
        Found found = Found.NOTHING;
        String problem = "";
        try {
            found = reconciling.reconcile(buckets.of(open.store()), alive);
        } catch (FarAway | IllegalArgumentException failed) {
            LOG.info("the bucket of {} could not be looked through: {}", open.store(), failed.getMessage());
            problem = ShortText.of(String.valueOf(failed.getMessage()), LONGEST);
        }
        said(open, found, problem);
    }

    private void said(BucketReport open, Found found, String problem) {
        transactions.run(() -> {
            Instant now = clock.instant();
            if (checks.done(open.id(), found, problem, now) && !found.isWhole()) {
                notices.tellAdministrators(
                        now,
                        "Objects of the cold store " + open.store() + " are not as they were written",
                        Counted.of(found.missing(), "object") + " missing, "
                                + Counted.of(found.differing(), "object")
                                + " of another length. Which files need them: /lighten/stores/"
                                + open.store() + "/objects");
            }
        });
    }
}
