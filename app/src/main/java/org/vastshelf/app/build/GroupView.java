package org.vastshelf.app.build;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/**
 * A drive group as its pool's page shows it.
 *
 * @param byLabels what the layout would give if the drives held exactly what their labels say
 */
public record GroupView(
        int index, DriveGroup group, List<Drive> drives, Possible layout, Bytes byLabels, PoolState.GroupState state) {

    static List<GroupView> of(Estate estate, Pool pool) {
        List<PoolState.GroupState> states = PoolState.of(estate, pool).groups();
        List<GroupView> views = new ArrayList<>();
        for (int i = 0; i < pool.groups().size(); i++) {
            DriveGroup group = pool.groups().get(i);
            views.add(new GroupView(
                    i,
                    group,
                    estate.drives(group.members()),
                    Ledgers.layoutOf(estate, pool, group),
                    Ledgers.layoutOf(estate, bare(pool), group).data(),
                    states.get(i)));
        }
        return views;
    }

    private static Pool bare(Pool pool) {
        return new Pool(
                pool.name(),
                pool.server(),
                pool.groups(),
                pool.spares(),
                Bytes.ZERO,
                Bytes.ZERO,
                Bytes.ZERO,
                Bytes.ZERO,
                pool.pace(),
                pool.fastAsCache());
    }
}
