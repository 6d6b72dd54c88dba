package org.vastshelf.core.change;

import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.vastshelf.core.change.Check.Verdict;
import org.vastshelf.core.estate.Estate;

/**
 * A draft looked through: what would be done, what was found, what cannot be changed later, and the estate after it.
 */
public record Plan(List<Step> steps, List<Check> checks, List<String> permanent, Estate before, Estate after) {

    public Plan {
        steps = List.copyOf(steps);
        checks = List.copyOf(checks);
        permanent = List.copyOf(permanent);
    }

    /** With more that was found. */
    public Plan with(List<Check> more) {
        return new Plan(steps, Stream.concat(checks.stream(), more.stream()).toList(), permanent, before, after);
    }

    public boolean isRefused() {
        return checks.stream().anyMatch(c -> c.verdict() == Verdict.REFUSE);
    }

    /** Checks that somebody has to confirm before the order can be carried out. */
    public List<Check> unconfirmed(Set<String> confirmed) {
        return checks.stream()
                .filter(c -> c.verdict() == Verdict.CONFIRM && !confirmed.contains(c.key()))
                .toList();
    }
}
