package org.vastshelf.core.definition;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.LimitChange;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.change.ShareChange;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Names;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;

/**
 * A volume with its shares, limit rules and rules of its own, to be made again under another name.
 *
 * @param volume as it was saved; its name and pool are replaced when the template is used
 */
public record VolumeTemplate(String name, Volume volume, List<Share> shares, List<LimitRule> limits, List<Rule> rules) {

    public VolumeTemplate {
        Names.require("template name", name);
        shares = List.copyOf(shares);
        limits = List.copyOf(limits);
        // Templates saved before rules were things of their own do not name them.
        rules = rules == null ? List.of() : List.copyOf(rules);
    }

    /** Takes a volume of the estate as a template. */
    public static VolumeTemplate of(String name, Estate estate, Volume volume) {
        List<Share> shares = estate.sharesOn(volume.name()).toList();
        List<LimitRule> limits =
                shares.stream().flatMap(s -> estate.limitsOn(s.name())).toList();
        return new VolumeTemplate(name, volume, shares, limits, estate.rulesOf(Kinds.VOLUME, volume.name()));
    }

    /**
     * The changes that make it again. The first share takes the volume's name; further ones the name and their number.
     */
    public List<Change> applied(String volumeName, String pool) {
        Volume made = new Volume(
                volumeName,
                pool,
                volume.size(),
                volume.thin(),
                volume.blockSize(),
                volume.alarmPercent(),
                volume.kind(),
                volume.encrypted(),
                volume.pace(),
                Optional.empty());
        List<Change> changes = new ArrayList<>();
        changes.add(new VolumeChange.ComposeVolume(made));
        rules.forEach(rule -> changes.add(new RuleChange.SetRule(rule.governing(volumeName))));
        for (int i = 0; i < shares.size(); i++) {
            Share share = shares.get(i);
            String shareName = i == 0 ? volumeName : volumeName + "-" + (i + 1);
            changes.add(new ShareChange.OpenShare(new Share(
                    shareName,
                    volumeName,
                    share.smb(),
                    share.nfs(),
                    share.hiddenEntries(),
                    share.access(),
                    share.exports(),
                    share.ownFolders())));
            limits.stream()
                    .filter(rule -> rule.share().equals(share.name()))
                    .forEach(rule -> changes.add(new LimitChange.SetLimit(new LimitRule(
                            shareName,
                            rule.path(),
                            rule.eachChild(),
                            rule.apart(),
                            rule.warnAt(),
                            rule.graceAt(),
                            rule.graceTime(),
                            rule.stopAt()))));
        }
        return changes;
    }
}
