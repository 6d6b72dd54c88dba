package org.vastshelf.app.retention;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.CountedClock;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.orders.RetentionBound;
import org.vastshelf.app.retention.Holding.Sum;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.change.RetentionPlans;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.RetentionRule.Seal;

/** Says what retention rules hold, and seals them. */
@Service
public class Retention {

    private final HoldingStore store;
    private final EstateStore estates;
    private final RetentionBound bound;
    private final CountedClock counted;
    private final ShelfClock clock;
    private final Deeds deeds;
    private final Transactions transactions;

    Retention(
            HoldingStore store,
            EstateStore estates,
            RetentionBound bound,
            CountedClock counted,
            ShelfClock clock,
            Deeds deeds,
            Transactions transactions) {
        this.store = store;
        this.estates = estates;
        this.bound = bound;
        this.counted = counted;
        this.clock = clock;
        this.deeds = deeds;
        this.transactions = transactions;
    }

    public List<RetentionRule> rules() {
        return List.copyOf(estates.load().all(Kinds.RETENTION).values());
    }

    /** @throws NotFound when there is none */
    public RetentionRule rule(String key) {
        return estates.load().find(Kinds.RETENTION, key).orElseThrow(() -> new NotFound("retention rule", key));
    }

    /** What a rule holds now. A sealed one lets go by the time that nobody moves. */
    public Holding holding(RetentionRule rule) {
        Instant now = clock.instant();
        LocalDate today = LocalDate.ofInstant(rule.isSealed() ? counted.instant() : now, ShelfClock.ZONE);
        Sum held = Sum.NOTHING;
        Sum young = Sum.NOTHING;
        Sum free = Sum.NOTHING;
        LocalDate last = today;
        TreeMap<LocalDate, Sum> coming = new TreeMap<>();
        for (HoldingStore.Count count : store.counts(rule, now.minus(rule.quiet()))) {
            Sum sum = new Sum(count.files(), count.bytes());
            Instant from = count.from().atStartOfDay(ShelfClock.ZONE).toInstant();
            LocalDate day = LocalDate.ofInstant(rule.freeAt(from, from, ShelfClock.ZONE), ShelfClock.ZONE);
            last = day.isAfter(last) ? day : last;
            if (day.isBefore(today)) {
                free = free.plus(sum);
            } else {
                coming.merge(day, sum, Sum::plus);
                held = count.young() ? held : held.plus(sum);
                young = count.young() ? young.plus(sum) : young;
            }
        }
        return new Holding(today, held, young, free, coming, last);
    }

    /**
     * Seals a rule: from now on nobody can shorten it.
     *
     * @param lastFree the day on which the last file that is there becomes free, as who seals it has typed it
     * @param years typed where the rule holds files for more than ten
     * @throws AtField when something typed is not so
     */
    public void seal(String who, String key, LocalDate lastFree, Optional<Integer> years) {
        transactions.run(() -> {
            EstateAnswer answer = estates.change((estate, held) -> {
                RetentionRule rule =
                        estate.find(Kinds.RETENTION, key).orElseThrow(() -> new NotFound("retention rule", key));
                if (rule.isSealed()) {
                    return new EstateAnswer.Refused("the retention of " + key + " is sealed already");
                }
                RetentionPlans.tooLong(rule, years, bound.of()).ifPresent(why -> {
                    throw new AtField("years", why);
                });
                LocalDate last = holding(rule).last();
                if (!last.equals(lastFree)) {
                    throw new AtField(
                            "lastFree",
                            "date is " + lastFree + ", must be " + last
                                    + ", when the last file that is there becomes free");
                }
                return new EstateAnswer.Changed(
                        estate.with(Kinds.RETENTION, rule.sealed(new Seal(who, clock.instant(), last))));
            });
            if (answer instanceof EstateAnswer.Refused refused) {
                throw new IllegalArgumentException(refused.because());
            }
            deeds.done(who, Deeds.Kind.RETENTION, key, "retention sealed; the last file becomes free on " + lastFree);
        });
    }
}
