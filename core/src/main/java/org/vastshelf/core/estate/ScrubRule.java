package org.vastshelf.core.estate;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.time.ScheduleWords;

/**
 * When a pool is scrubbed by itself.
 *
 * @param when at most once an hour; one that falls due while another runs is left out
 */
public record ScrubRule(String pool, Schedule when) implements Rule {

    public ScrubRule {
        when.atMostEvery(Duration.ofHours(1), "scrub");
    }

    @Override
    public Kind<ScrubRule> kind() {
        return Kinds.SCRUBBING;
    }

    @Override
    public Kind<?> subject() {
        return Kinds.POOL;
    }

    @Override
    public String governs() {
        return pool;
    }

    @Override
    public ScrubRule governing(String other) {
        return new ScrubRule(other, when);
    }

    @Override
    public Optional<Schedule> schedule() {
        return Optional.of(when);
    }

    @Override
    public String title() {
        return "Scrub pool " + pool + " " + ScheduleWords.of(when);
    }

    @Override
    public Optional<String> refusal(Estate estate) {
        return fault(estate)
                .or(() -> estate.pools().get(pool).isReservation()
                        ? Optional.of("Pool " + pool + " has no drives to see")
                        : Optional.empty());
    }
}
