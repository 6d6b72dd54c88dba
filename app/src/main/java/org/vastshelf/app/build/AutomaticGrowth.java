package org.vastshelf.app.build;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.annotation.Order;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.look.DayWork;
import org.vastshelf.app.notify.Notices;
import org.vastshelf.app.orders.OrderRunner;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.GrowthStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Lets volumes grow by their rules: each time an order of its own, a notice, and a line in the volume's history. */
@Component
@Order(2)
class AutomaticGrowth implements DayWork {

    private static final Logger LOG = LoggerFactory.getLogger(AutomaticGrowth.class);
    private static final String AUTHOR = "growth-rule";
    private static final Duration LEAST_PAUSE = Duration.ofMinutes(10);
    private static final Duration TOLD_AGAIN = Duration.ofDays(7);

    private final EstateStore estates;
    private final UsageStore usage;
    private final GrowthStore growths;
    private final OrderService orders;
    private final OrderRunner runner;
    private final Notices notices;
    private final ShelfClock clock;
    private final Transactions transactions;

    AutomaticGrowth(
            EstateStore estates,
            UsageStore usage,
            GrowthStore growths,
            OrderService orders,
            OrderRunner runner,
            Notices notices,
            ShelfClock clock,
            Transactions transactions) {
        this.estates = estates;
        this.usage = usage;
        this.growths = growths;
        this.orders = orders;
        this.runner = runner;
        this.notices = notices;
        this.clock = clock;
        this.transactions = transactions;
    }

    @Override
    public void of(LocalDate day) {
        check(day.atTime(LocalTime.of(23, 0)).toInstant(ZoneOffset.UTC));
    }

    @Scheduled(fixedDelay = 5_000)
    void now() {
        check(clock.instant());
    }

    private void check(Instant at) {
        List<Volume> ruled = estates.load().volumes().values().stream()
                .filter(v -> v.growth().isPresent())
                .toList();
        boolean grew = false;
        for (Volume volume : ruled) {
            grew |= grownOrTold(volume.name(), at);
        }
        if (grew) {
            runner.run();
        }
    }

    /** A rule that fails in a way that nobody foresaw stops no other. */
    private boolean grownOrTold(String volume, Instant at) {
        try {
            return transactions.run(() -> {
                estates.lock("volume", volume);
                return Optional.ofNullable(estates.load().volumes().get(volume))
                        .filter(v -> v.growth().isPresent())
                        .map(v -> grow(v, at))
                        .orElse(false);
            });
        } catch (RuntimeException unforeseen) {
            LOG.error("the growth rule of {} failed", volume, unforeseen);
            return false;
        }
    }

    /** In steps that the file server has. */
    private Bytes sold(Volume volume, GrowthRule rule, Bytes wanted) {
        Estate estate = estates.load();
        FileServer server =
                estate.servers().get(estate.pools().get(volume.pool()).server());
        return server.sizes().grown(volume.size(), wanted, rule.ceiling());
    }

    private boolean grow(Volume volume, Instant at) {
        GrowthRule rule = volume.growth().orElseThrow();
        Optional<GrowthStore.Growth> last = growths.last(volume.name());
        // Asked every few seconds, one without a pause that can't act would act all day.
        boolean justNow = last.filter(g -> Duration.between(g.at(), at).compareTo(LEAST_PAUSE) < 0)
                .isPresent();
        boolean onItsWay = last.filter(g -> orders.isUnderWay(g.order())).isPresent();
        Optional<Duration> since = last.map(g -> Duration.between(g.at(), at));
        Bytes used = usage.load().of(volume.name()).used();
        Optional<Bytes> next = onItsWay || justNow
                ? Optional.empty()
                : rule.next(volume.size(), used, since).map(size -> sold(volume, rule, size));
        if (next.filter(volume.size()::equals).isPresent()
                || next.isEmpty()
                || since.filter(Duration::isNegative).isPresent()) {
            return false;
        }
        long id = orders.create(AUTHOR, List.of(new Change.ResizeVolume(volume.name(), next.get())))
                .id();
        String free = UnitSystem.BINARY.format(volume.size().minusOrZero(used));
        String size = UnitSystem.BINARY.format(next.get());
        Optional<String> refused = orders.begin(id, AUTHOR, at);
        if (refused.isEmpty()) {
            notices.tellAdministrators(
                    at,
                    "Volume " + volume.name() + " grows to " + size,
                    "Its rule of automatic growth acted: " + free + " were free. Order " + id + ".");
        } else {
            orders.discard(id, AUTHOR);
            notices.tellAdministratorsOnce(
                    at,
                    TOLD_AGAIN,
                    "Volume " + volume.name() + " could not grow to " + size,
                    refused.get() + ". " + free + " are free.");
        }
        growths.add(volume.name(), at, id);
        return true;
    }
}
