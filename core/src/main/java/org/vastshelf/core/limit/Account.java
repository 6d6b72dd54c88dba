package org.vastshelf.core.limit;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/**
 * One concrete holder of a limit, with what it holds now.
 *
 * @param folder where the files lie that count
 * @param owner the person or group whose files count; empty for all files
 */
public record Account(LimitRule rule, FilePath folder, String owner, Bytes used, AccountState state) {

    /** An account of a folder. */
    public Account(LimitRule rule, FilePath folder, Bytes used, AccountState state) {
        this(rule, folder, "", used, state);
    }

    /** Whether a file with these owners counts for it. */
    public boolean counts(String person, String group) {
        return switch (rule.apart()) {
            case NOBODY -> true;
            case PERSON -> owner.equals(person);
            case GROUP -> owner.equals(group);
        };
    }

    /** The holder alone: a folder, a person or a group. */
    public String holder() {
        return owner.isEmpty() ? folder.text() : owner;
    }

    /** The holder with where its files lie, such as "suki's files in homes/". */
    public String title() {
        String where = rule.share() + folder;
        String files = switch (rule.apart()) {
            case NOBODY -> where;
            case PERSON -> owner + "'s files in " + where;
            case GROUP -> "files of group " + owner + " in " + where;
        };
        return files + rule.basis().behind();
    }

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
        return new Account(rule, folder, owner, next, state);
    }

    /** Where there is something to remove, as somebody sees it who is on the share. */
    public String place() {
        return owner.isEmpty() ? folder.text() : title();
    }

    /** What it may hold by its strictest level; empty when it only tracks. */
    public Optional<Bytes> most() {
        return rule.stopAt().or(rule::graceAt).or(rule::warnAt);
    }

    /** Says what the account answers when it is to grow by so many bytes now. */
    public Answer grow(Bytes growth, Instant now, UnitSystem units) {
        Bytes after = used.plus(growth);
        Optional<Bytes> stop = rule.stopAt().filter(after::isMoreThan);
        if (stop.isPresent()) {
            Bytes over = after.minus(stop.get());
            return new Refuses(
                    "holds " + units.format(used) + rule.basis().behind() + " and may hold " + units.format(stop.get())
                            + "; this save would exceed it by " + units.format(over),
                    "remove at least " + units.format(over) + " from " + place());
        }
        if (rule.graceAt().filter(after::isMoreThan).isPresent()) {
            return inGrace(after, now, units);
        }
        return new Allows("holds " + units.format(after) + rule.basis().behind() + " after this" + levels(units));
    }

    private Answer inGrace(Bytes after, Instant now, UnitSystem units) {
        Bytes level = rule.graceAt().orElseThrow();
        Instant ends = state.graceSince().orElse(now).plus(rule.graceTime());
        if (now.isBefore(ends)) {
            return new Allows("over the grace level of " + units.format(level) + "; growth is allowed until " + ends);
        }
        return new Refuses(
                "holds " + units.format(used) + rule.basis().behind() + ", over its grace level of "
                        + units.format(level) + ", and the grace time ended " + ends,
                "remove at least " + units.format(after.minus(level)) + " from " + place());
    }

    private String levels(UnitSystem units) {
        return rule.stopAt()
                .or(rule::graceAt)
                .or(rule::warnAt)
                .map(level -> " of " + units.format(level))
                .orElse("; only tracked");
    }
}
