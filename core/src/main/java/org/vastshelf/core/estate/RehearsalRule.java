package org.vastshelf.core.estate;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.time.ScheduleWords;

/**
 * When failing over is rehearsed by itself.
 *
 * @param volume the one that has a copy
 * @param when at most once a day
 */
public record RehearsalRule(String volume, Schedule when) implements Rule {

    public RehearsalRule {
        when.atMostEvery(Duration.ofDays(1), "rehearsal");
    }

    @Override
    public Kind<RehearsalRule> kind() {
        return Kinds.REHEARSAL;
    }

    @Override
    public Kind<?> subject() {
        return Kinds.VOLUME;
    }

    @Override
    public String governs() {
        return volume;
    }

    @Override
    public RehearsalRule governing(String other) {
        return new RehearsalRule(other, when);
    }

    @Override
    public Optional<Schedule> schedule() {
        return Optional.of(when);
    }

    @Override
    public String title() {
        return "Rehearse failing over volume " + volume + " " + ScheduleWords.of(when);
    }

    @Override
    public Optional<String> fault(Estate estate) {
        return estate.find(Kinds.PAIR, volume).isPresent()
                ? Optional.empty()
                : Optional.of("volume " + volume + " has no copy that is kept up");
    }
}
