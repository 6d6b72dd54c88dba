package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;

/** Plans limit rules. */
final class LimitPlans {

    private LimitPlans() {}

    static void plan(PlanDraft draft, LimitChange change) {
        switch (change) {
            case LimitChange.SetLimit set -> set(draft, set.rule());
            case LimitChange.DropLimit drop -> drop(draft, drop.rule());
        }
    }

    static void set(PlanDraft draft, LimitRule rule) {
        Estate estate = draft.estate();
        String key = "limit " + rule.key() + ": ";
        Share share = estate.shares().get(rule.share());
        if (share == null) {
            draft.refuse(key + "share", "There is no share '" + rule.share() + "'", "open it first");
            return;
        }
        Volume volume = estate.volumes().get(share.volume());
        boolean aboveVolume = rule.stopAt()
                .filter(stop -> volume != null && stop.isMoreThan(volume.size()))
                .isPresent();
        if (aboveVolume) {
            draft.watch(
                    key + "size",
                    "The stop level is above the size of volume " + volume.name()
                            + "; the volume is full before it acts",
                    "a lower level");
        } else {
            draft.fine(key + "size", "The levels lie within the volume");
        }
        draft.step(
                new LimitStep.SetLimit(rule, Optional.ofNullable(estate.limits().get(rule.key()))));
    }

    static void drop(PlanDraft draft, String rule) {
        LimitRule found = draft.estate().limits().get(rule);
        if (found == null) {
            draft.refuse("limit " + rule + ": name", "There is no limit rule '" + rule + "'", "");
            return;
        }
        draft.step(new LimitStep.DropLimit(found));
    }
}
