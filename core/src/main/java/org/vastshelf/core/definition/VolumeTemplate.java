package org.vastshelf.core.definition;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Names;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.limit.LimitRule;

/**
 * A volume with its shares and limit rules, to be made again under another name.
 *
 * @param volume as it was saved; its name and pool are replaced when the template is used
 */
public record VolumeTemplate(String name, Volume volume, List<Share> shares, List<LimitRule> limits) {

    public VolumeTemplate {
        Names.require("template name", name);
        shares = List.copyOf(shares);
        limits = List.copyOf(limits);
    }

    /** Takes a volume of the estate as a template. */
    public static VolumeTemplate of(String name, Estate estate, Volume volume) {
        List<Share> shares = estate.sharesOn(volume.name()).toList();
        List<LimitRule> limits =
                shares.stream().flatMap(s -> estate.limitsOn(s.name())).toList();
        return new VolumeTemplate(name, volume, shares, limits);
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
                volume.growth(),
                Optional.empty());
        List<Change> changes = new ArrayList<>();
        changes.add(new Change.ComposeVolume(made));
        for (int i = 0; i < shares.size(); i++) {
            Share share = shares.get(i);
            String shareName = i == 0 ? volumeName : volumeName + "-" + (i + 1);
            changes.add(new Change.OpenShare(new Share(
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
                    .forEach(rule -> changes.add(new Change.SetLimit(new LimitRule(
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
