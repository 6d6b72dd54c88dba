package org.vastshelf.core.limit;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** One concrete holder of a limit: this folder, with what it holds now. */
public record Account(LimitRule rule, FilePath folder, Bytes used, AccountState state) {

    /** What an account says to growth. */
    public sealed interface Answer {
        String said();
    }

    public record Allows(String said) implements Answer {}

    public record Refuses(String said, String remedy) implements Answer {}

    /** Whether the account may grow by so many bytes now; makes nothing on the way to a plain yes. */
    public boolean allows(long growth, Instant now) {
        long after = Math.addExact(used.value(), growth);
        if (rule.stopAt().isPresent() && after > rule.stopAt().get().value()) {
            return false;
        }
        return rule.graceAt().isEmpty()
                || after <= rule.graceAt().get().value()
                || state.graceSince().isEmpty()
                || now.isBefore(state.graceSince().get().plus(rule.graceTime()));
    }

    /** The account with so much more, or less, in it. */
    public Account holding(Bytes next) {
        return new Account(rule, folder, next, state);
    }

    /** What it may hold by its strictest level; empty when it only tracks. */
    public Optional<Bytes> most() {
        return rule.stopAt().or(rule::graceAt).or(rule::warnAt);
    }

    /** Says what the account answers when it is to grow by so many bytes now. */
    public Answer grow(Bytes growth, Instant now) {
        Bytes after = used.plus(growth);
        Optional<Bytes> stop = rule.stopAt().filter(after::isMoreThan);
        if (stop.isPresent()) {
            Bytes over = after.minus(stop.get());
            return new Refuses(
                    "holds " + text(used) + " and may hold " + text(stop.get()) + "; this save would exceed it by "
                            + text(over),
                    "remove at least " + text(over) + " from " + folder);
        }
        if (rule.graceAt().filter(after::isMoreThan).isPresent()) {
            return inGrace(after, now);
        }
        return new Allows("holds " + text(after) + " after this" + levels());
    }

    private Answer inGrace(Bytes after, Instant now) {
        Bytes level = rule.graceAt().orElseThrow();
        Instant ends = state.graceSince().orElse(now).plus(rule.graceTime());
        if (now.isBefore(ends)) {
            return new Allows("over the grace level of " + text(level) + "; growth is allowed until " + ends);
        }
        return new Refuses(
                "holds " + text(used) + ", over its grace level of " + text(level) + ", and the grace time ended "
                        + ends,
                "remove at least " + text(after.minus(level)) + " from " + folder);
    }

    private String levels() {
        return rule.stopAt()
                .or(rule::graceAt)
                .or(rule::warnAt)
                .map(level -> " of " + text(level))
                .orElse("; only tracked");
    }

    private static String text(Bytes bytes) {
        return UnitSystem.BINARY.format(bytes);
    }
}
