package org.vastshelf.app.tier;

import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.tier.TierRule;

/** What is asked of the files of one catalogue, as conditions on their rows. */
record TierQuestionStore(int catalogue, TierRule rule, long lastTime) {

    private static final int DAY = 86_400;

    long lastDay() {
        return Math.floorDiv(lastTime, DAY);
    }

    Field<Long> day() {
        return TierStore.day(rule.by());
    }

    Field<Long> time() {
        return TierStore.time(rule.by());
    }

    Condition ofCatalogue() {
        return FILE.CATALOGUE_NO.eq(catalogue).and(FILE.COUNTED.eq(1));
    }

    Condition large() {
        return FILE.BYTES.gt(rule.largerThanBytes());
    }

    boolean anySize() {
        return rule.largerThanBytes() == TierRule.ANY_SIZE;
    }

    Condition old() {
        return time().le(lastTime);
    }

    Condition excluded() {
        return DSL.or(
                rule.excludedFolders().stream().map(TierQuestionStore::below).toList());
    }

    Condition mayLeave() {
        return large().and(old()).andNot(excluded());
    }

    /** A folder itself, and all folders in it. */
    private static Condition below(String folder) {
        byte[] path = PathBytes.parse(folder);
        if (path.length == 1) {
            return DSL.trueCondition();
        }
        byte[] inside = PathBytes.child(path, new byte[0]);
        return FOLDER.PATH
                .eq(path)
                .or(DSL.condition("LEFT({0}, {1}) = {2}", FOLDER.PATH, DSL.val(inside.length), DSL.val(inside)));
    }
}
