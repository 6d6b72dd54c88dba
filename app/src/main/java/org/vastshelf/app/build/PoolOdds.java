package org.vastshelf.app.build;

import java.util.List;
import java.util.function.ToDoubleFunction;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.ledger.Ledgers;

/** The odds that a pool loses data: in a year when it is whole, and before that where drives are gone. */
final class PoolOdds {

    private static final double LEAST_LEFT = 1e-6;

    private PoolOdds() {}

    static String said(Figures fmt, Estate estate, Pool pool, List<GroupView> groups) {
        String whole = fmt.odds(any(groups, g -> g.layout().yearlyLossOdds()));
        List<GroupView> hurt = groups.stream()
                .filter(g -> !g.state().gone().isEmpty() && g.state().further() >= 0)
                .toList();
        return hurt.isEmpty()
                ? whole
                : whole + " once it is whole, and as it stands " + fmt.odds(any(hurt, g -> before(estate, pool, g)))
                        + " before that";
    }

    private static double before(Estate estate, Pool pool, GroupView group) {
        return LayoutComparison.oddsBeforeWhole(
                group.layout(),
                Ledgers.questionOf(estate, pool, group.group()),
                group.state().gone().size(),
                left(estate, group));
    }

    /** Of the rebuild that ends first. */
    private static double left(Estate estate, GroupView group) {
        return group.state().gone().stream()
                .map(estate.rebuilds()::get)
                .filter(java.util.Objects::nonNull)
                .mapToDouble(PoolOdds::left)
                .min()
                .orElse(1);
    }

    private static double left(Rebuild rebuild) {
        return Math.max(LEAST_LEFT, rebuild.todo().minusOrZero(rebuild.done()).shareOf(rebuild.todo()));
    }

    /** Odds that one of the groups loses data; groups are independent. */
    private static double any(List<GroupView> groups, ToDoubleFunction<GroupView> each) {
        double none = 0;
        for (GroupView group : groups) {
            none += Math.log1p(-Math.min(each.applyAsDouble(group), 1 - 1e-16));
        }
        return -Math.expm1(none);
    }
}
