package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.AccessRule.Level;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Share;

/** Plans shares. */
final class SharePlans {

    private SharePlans() {}

    static void plan(PlanDraft draft, ShareChange change) {
        switch (change) {
            case ShareChange.OpenShare open -> open(draft, open.share());
            case ShareChange.CloseShare close -> close(draft, close.share());
        }
    }

    static void open(PlanDraft draft, Share share) {
        Estate estate = draft.estate();
        String key = "share " + share.name() + ": ";
        Optional<Share> before = Optional.ofNullable(estate.shares().get(share.name()));
        if (!estate.volumes().containsKey(share.volume())) {
            draft.refuse(key + "volume", "There is no volume '" + share.volume() + "'", "compose it first");
            return;
        }
        if (before.isPresent() && !before.get().volume().equals(share.volume())) {
            draft.refuse(
                    key + "name",
                    "The share name '" + share.name() + "' is taken, on volume "
                            + before.get().volume(),
                    "choose another name");
            return;
        }
        if (before.isEmpty() && estate.sharesOn(share.volume()).findAny().isPresent()) {
            draft.refuse(
                    key + "volume",
                    "Volume " + share.volume() + " is served as "
                            + estate.sharesOn(share.volume())
                                    .findAny()
                                    .orElseThrow()
                                    .name() + " already",
                    "change that share, or choose another volume");
            return;
        }
        checks(draft, estate, share, key);
        draft.step(new ShareStep.OpenShare(share, before));
    }

    private static void checks(PlanDraft draft, Estate estate, Share share, String key) {
        if (share.access().stream().noneMatch(rule -> rule.level() != Level.READ)) {
            draft.watch(key + "access", "Nobody may write to " + share.name(), "add an access rule");
        }
        if (share.nfs() && share.exports().isEmpty()) {
            draft.watch(
                    key + "exports", "No client address may mount " + share.name() + " over NFS", "add an export rule");
        }
        boolean reachable =
                estate.serverOf(share).filter(FileServer::isReachable).isPresent();
        if (reachable) {
            draft.fine(key + "reach", "Clients reach its file server");
        } else {
            draft.watch(key + "reach", "Its file server has no data address: no client can reach it", "");
        }
    }

    static void close(PlanDraft draft, String name) {
        Share share = draft.estate().shares().get(name);
        String key = "share " + name + ": ";
        if (share == null) {
            draft.refuse(key + "name", "There is no share '" + name + "'", "");
            return;
        }
        draft.confirm(key + "clients", "Clients lose " + name + " at once; its files and limit rules stay");
        RulePlans.dropAll(draft, Kinds.SHARE, name);
        draft.step(new ShareStep.CloseShare(share));
    }
}
