package org.vastshelf.app.clock;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.config.Settings;

/** The time of the installation. The demo's runs beside real time and can be moved forward. */
@Component
public class ShelfClock implements InstantSource {

    /** Monday 2 March 2026, 08:00: where the demo begins. */
    public static final Instant DEMO_START = Instant.parse("2026-03-02T08:00:00Z");

    /** By which days begin and schedules are read. */
    public static final ZoneId ZONE = ZoneOffset.UTC;

    private final ThreadLocal<Instant> moment = new ThreadLocal<>();
    private final ClockStore store;
    private final boolean demo;
    private volatile Duration offset = Duration.ZERO;

    ShelfClock(ClockStore store, Settings settings) {
        this.store = store;
        this.demo = settings.demo();
        if (demo) {
            store.begin(Duration.between(Instant.now(), DEMO_START));
        }
        refresh();
    }

    /** Another node may have moved the clock. */
    @Scheduled(fixedDelay = 1_000)
    public void refresh() {
        if (demo) {
            offset = store.offset();
        }
    }

    @Override
    public Instant instant() {
        Instant standing = moment.get();
        return standing == null ? now() : standing;
    }

    /** The time by now, also while the clock stands at another for this thread. */
    public Instant now() {
        return Instant.now().plus(offset).truncatedTo(ChronoUnit.MICROS);
    }

    /** Lets the clock stand at a moment while this thread does what was due then. */
    public void during(Instant at, Runnable work) {
        moment.set(at);
        try {
            work.run();
        } finally {
            moment.remove();
        }
    }

    /** The host's clock, for what has nothing to do with the demo: people at the door, and folders of this host. */
    public Instant real() {
        return Instant.now();
    }

    public LocalDate today() {
        return LocalDate.ofInstant(instant(), ZONE);
    }

    /** The midnight that began today, if it is later than a moment. */
    public Optional<Instant> nightAfter(Instant at) {
        return Optional.of(lastMidnight()).filter(last -> last.isAfter(at));
    }

    /** The midnight that began today. */
    public Instant lastMidnight() {
        return now().atZone(ZONE).toLocalDate().atStartOfDay(ZONE).toInstant();
    }

    public boolean canMove() {
        return demo;
    }

    /** Moves the demo's clock forward; {@link #refresh} lets this node see it, once the transaction has ended. */
    public void forward(Duration by) {
        if (!demo) {
            throw new IllegalStateException("only the demo's clock can be moved");
        }
        store.forward(by);
    }
}
