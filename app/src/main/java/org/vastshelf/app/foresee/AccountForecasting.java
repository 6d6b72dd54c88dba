package org.vastshelf.app.foresee;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BooleanSupplier;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.core.forecast.FillDates;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;

/** Forecasts the accounts of limits, which are many: some at a time, from the last year of each, on one core. */
@Component
class AccountForecasting {

    private static final String WORK = "forecasts of accounts";
    private static final int AT_ONCE = 100;
    private static final int LOOKS_BACK = 400;
    private static final int KEPT = 364;

    private final AccountForecastStore store;
    private final AccountHistoryStore histories;
    private final AccountPastStore past;
    private final LeaseStore leases;
    private final ShelfClock clock;
    /** What has been gone through to the end. */
    private final AtomicReference<Object> done = new AtomicReference<>(new Object());

    AccountForecasting(
            AccountForecastStore store,
            AccountHistoryStore histories,
            AccountPastStore past,
            LeaseStore leases,
            ShelfClock clock) {
        this.store = store;
        this.histories = histories;
        this.past = past;
        this.leases = leases;
        this.clock = clock;
    }

    /**
     * An account by its hashes.
     *
     * @param most what it may hold by its strictest level, more than nothing
     */
    record Holder(byte[] rule, byte[] holder, Bytes most) {

        String key() {
            return key(rule, holder);
        }

        /** The name of an account among spaces. */
        static String key(byte[] rule, byte[] holder) {
            return HexFormat.of().formatHex(rule) + HexFormat.of().formatHex(holder);
        }
    }

    /** What has to be gone through again when it changes. */
    private record Round(LocalDate day, String levels, int version) {}

    /**
     * Goes on with those whose forecast is not of this day, for so long at most.
     *
     * @param isWanted asked every now and then, whether to go on
     */
    void turn(LocalDate day, Duration most, BooleanSupplier isWanted) {
        Round round = new Round(day, store.levels(), FillDates.VERSION);
        if (round.equals(done.get()) || !leases.take(WORK, most.multipliedBy(2))) {
            return;
        }
        try {
            past.workOut(day);
            Instant end = clock.real().plus(most);
            Holder after = null;
            while (isWanted.getAsBoolean() && clock.real().isBefore(end)) {
                List<Holder> due = store.due(after, day, AT_ONCE);
                if (due.isEmpty()) {
                    store.forget();
                    histories.forget();
                    done.set(round);
                    return;
                }
                forecast(due, day);
                after = due.getLast();
            }
        } finally {
            leases.giveBack(WORK);
        }
    }

    private void forecast(List<Holder> due, LocalDate day) {
        Map<Holder, History> pasts = histories.of(due, day.minusDays(LOOKS_BACK), day);
        List<Space> expected = new ArrayList<>();
        pasts.forEach((holder, history) -> {
            if (history.last().equals(day)) {
                FillForecast forecast = FillDates.forecast(holder.most(), history);
                expected.add(new Space(
                        HistoryStore.ACCOUNT,
                        holder.key(),
                        holder.most(),
                        day,
                        history.used().getLast(),
                        forecast.shortened(KEPT)));
            }
        });
        store.put(expected);
    }
}
