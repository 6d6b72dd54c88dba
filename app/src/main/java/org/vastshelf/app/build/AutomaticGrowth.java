package org.vastshelf.app.build;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.orders.OrderExecution;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.GrowthStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Lets volumes grow by their rules: each time an order of its own, a notice, and a line in the volume's history. */
@Component
class AutomaticGrowth implements DueWork {

    private static final String AUTHOR = "growth-rule";
    private static final Duration TOLD_AGAIN = Duration.ofDays(7);

    private final EstateStore estates;
    private final UsageStore usage;
    private final AgendaStore agenda;
    private final GrowthStore growths;
    private final OrderService orders;
    private final OrderExecution execution;
    private final NoticeStore notices;
    private final ShelfClock clock;

    AutomaticGrowth(
            EstateStore estates,
            UsageStore usage,
            GrowthStore growths,
            OrderService orders,
            OrderExecution execution,
            AgendaStore agenda,
            NoticeStore notices,
            ShelfClock clock) {
        this.estates = estates;
        this.usage = usage;
        this.growths = growths;
        this.orders = orders;
        this.execution = execution;
        this.agenda = agenda;
        this.notices = notices;
        this.clock = clock;
    }

    @Override
    public DueKind kind() {
        return DueKind.of(Kinds.GROWTH);
    }

    @Override
    public void act(String volume, Instant at) {
        estates.lock(Kinds.VOLUME, volume);
        estates.load().find(Kinds.GROWTH, volume).ifPresent(rule -> grow(rule, at));
    }

    /** Between two deeds of the agenda that lie behind, nothing changes that a look could see. */
    @Override
    public Optional<Instant> again(String volume, Instant at, Supplier<Optional<Instant>> byAgenda) {
        Instant now = clock.now();
        Instant seen =
                agenda.firstOther(kind(), at).filter(now::isAfter).orElse(now).minusNanos(1);
        return estates.load()
                .find(Kinds.GROWTH, volume)
                .flatMap(rule -> rule.looks().next(seen.isAfter(at) ? seen : at, ShelfClock.ZONE));
    }

    /** In steps that the file server has. */
    private Bytes sold(Volume volume, GrowthRule rule, Bytes wanted) {
        Estate estate = estates.load();
        FileServer server =
                estate.servers().get(estate.pools().get(volume.pool()).server());
        return server.sizes().grown(volume.size(), wanted, rule.ceiling());
    }

    private void grow(GrowthRule rule, Instant at) {
        Volume volume = estates.load().volumes().get(rule.volume());
        Optional<GrowthStore.Growth> last = growths.last(volume.name());
        boolean onItsWay = last.filter(g -> orders.isUnderWay(g.order())).isPresent();
        Optional<Duration> since = last.map(g -> Duration.between(g.at(), at));
        Bytes used = usage.load().of(volume.name()).used();
        if (onItsWay || since.filter(Duration::isNegative).isPresent()) {
            return;
        }
        rule.next(volume.size(), used, since)
                .map(size -> sold(volume, rule, size))
                .filter(size -> !size.equals(volume.size()))
                .ifPresent(size -> grow(volume, used, size, at));
    }

    private void grow(Volume volume, Bytes used, Bytes next, Instant at) {
        long id = orders.create(AUTHOR, List.of(new VolumeChange.ResizeVolume(volume.name(), next)))
                .id();
        String free = UnitSystem.BINARY.format(volume.size().minusOrZero(used));
        String size = UnitSystem.BINARY.format(next);
        Optional<String> refused = execution.begin(id, AUTHOR, at);
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
    }
}
