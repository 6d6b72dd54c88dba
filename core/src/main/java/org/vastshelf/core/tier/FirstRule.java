package org.vastshelf.core.tier;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.TieringRule;

/** Which of several tiering rules decides about a file: of those that are about it, the one of the lowest rank. */
public final class FirstRule {

    private static final Comparator<TieringRule> BY_RANK = Comparator.comparingInt(TieringRule::rank);

    private FirstRule() {}

    public static Optional<TieringRule> of(Estate estate, TieringRule.Facts file) {
        return estate.all(Kinds.TIERING).values().stream()
                .filter(rule -> rule.isAbout(file))
                .min(BY_RANK);
    }

    /** Two rules that look into the same folders; the first decides about what both are about. */
    public record Overlap(TieringRule first, TieringRule second) {}

    public static List<Overlap> overlaps(Estate estate) {
        List<TieringRule> rules =
                estate.all(Kinds.TIERING).values().stream().sorted(BY_RANK).toList();
        List<Overlap> found = new ArrayList<>();
        for (int i = 0; i < rules.size(); i++) {
            for (TieringRule later : rules.subList(i + 1, rules.size())) {
                if (meet(rules.get(i), later)) {
                    found.add(new Overlap(rules.get(i), later));
                }
            }
        }
        return found;
    }

    private static boolean meet(TieringRule one, TieringRule other) {
        return one.places().stream().anyMatch(place -> other.places().stream().anyMatch(place::meets));
    }
}
