package org.vastshelf.core.limit;

import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Stance;
import org.vastshelf.core.unit.Bytes;

/**
 * What has to be remembered of an account between operations.
 *
 * @param graceSince when usage passed the grace level; empty while at or under it
 * @param fired levels whose crossing has been reported
 */
public record AccountState(Optional<Instant> graceSince, Set<Stance> fired) {

    public static final AccountState FRESH = new AccountState(Optional.empty(), Set.of());

    /** Usage has to fall this share below a level before passing it is reported again. */
    private static final double HYSTERESIS = 0.01;

    public AccountState {
        fired = Set.copyOf(fired);
    }

    /** A level passed upward ({@code rising}) or left behind. */
    public record Crossing(Stance stance, Bytes level, boolean rising) {}

    /** The state that follows, and what there is to report. */
    public record Next(AccountState state, List<Crossing> crossings) {}

    public Next after(LimitRule rule, Bytes used, Instant now) {
        List<Crossing> crossings = new ArrayList<>();
        Set<Stance> next = EnumSet.noneOf(Stance.class);
        for (Stance stance : Stance.values()) {
            rule.level(stance).ifPresent(level -> {
                boolean was = fired.contains(stance);
                boolean is = was ? !isClearlyBelow(used, level) : used.compareTo(level) >= 0;
                if (is) {
                    next.add(stance);
                }
                if (is != was) {
                    crossings.add(new Crossing(stance, level, is));
                }
            });
        }
        boolean inGrace = rule.graceAt().filter(used::isMoreThan).isPresent();
        Optional<Instant> since = inGrace ? graceSince.or(() -> Optional.of(now)) : Optional.empty();
        return new Next(new AccountState(since, next), crossings);
    }

    private static boolean isClearlyBelow(Bytes used, Bytes level) {
        return used.value() < level.value() - (long) Math.ceil(level.value() * HYSTERESIS);
    }
}
