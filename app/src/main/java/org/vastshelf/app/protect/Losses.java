package org.vastshelf.app.protect;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.replica.Copies;
import org.vastshelf.app.snapshot.ChangedStore;
import org.vastshelf.app.snapshot.SnapshotReserves;
import org.vastshelf.app.snapshot.SnapshotViews;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.ProtectionGoal;
import org.vastshelf.core.estate.ProtectionGoal.Loss;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.look.Attention;
import org.vastshelf.core.protect.Assets;
import org.vastshelf.core.protect.Recovery;
import org.vastshelf.core.volume.PoolPace;

/** Works out what could be brought back of shares after mishaps, and what falls short of what is wanted. */
@Service
public class Losses {

    private static final int SOON_DAYS = 60;

    private final SnapshotViews views;
    private final SnapshotReserves reserves;
    private final ChangedStore changed;
    private final Copies copies;
    private final ShareSumStore sums;
    private final EstateStore estates;
    private final ShelfClock clock;

    Losses(
            SnapshotViews views,
            SnapshotReserves reserves,
            ChangedStore changed,
            Copies copies,
            ShareSumStore sums,
            EstateStore estates,
            ShelfClock clock) {
        this.views = views;
        this.reserves = reserves;
        this.changed = changed;
        this.copies = copies;
        this.sums = sums;
        this.estates = estates;
        this.clock = clock;
    }

    /**
     * A share, and what could be brought back of it after each mishap; what is missing could not.
     *
     * @param rehearsed when letting its copy take over was tried last, and found right
     */
    public record Row(
            Share share,
            Optional<ProtectionGoal> goal,
            Map<Loss, Recovery> after,
            int snapshots,
            boolean copied,
            Optional<Instant> rehearsed) {

        Optional<String> shortfall(Loss loss, Instant now) {
            return Recovery.shortfall(goal, loss, Optional.ofNullable(after.get(loss)), now);
        }
    }

    public List<Row> of(Collection<Share> shares) {
        Estate estate = estates.load();
        Map<String, Copies.Standing> standings = copies.all();
        Map<String, Instant> rehearsed = copies.rehearsed();
        Map<String, ShareSumStore.Sum> held =
                sums.of(shares.stream().map(Share::name).toList());
        Map<String, List<SnapshotViews.Brief>> snapshotsOf =
                views.brief(shares.stream().map(Share::volume).collect(Collectors.toSet()));
        List<Row> rows = new ArrayList<>();
        for (Share share : shares) {
            List<SnapshotViews.Brief> taken = snapshotsOf.getOrDefault(share.volume(), List.of());
            ShareSumStore.Sum sum = held.getOrDefault(share.name(), ShareSumStore.Sum.NOTHING);
            Assets assets = new Assets(
                    sum.bytes(),
                    sum.files(),
                    taken.isEmpty() ? Optional.empty() : Optional.of(state(estate, share, taken.getLast())),
                    taken.stream()
                            .filter(SnapshotViews.Brief::locked)
                            .reduce((one, next) -> next)
                            .map(brief -> state(estate, share, brief)),
                    Optional.ofNullable(standings.get(share.volume()))
                            .flatMap(standing -> copy(estate, share, standing)));
            double mibps = estate.poolOf(share)
                    .map(pool -> PoolPace.mibps(estate, pool))
                    .orElse(1.0);
            rows.add(new Row(
                    share,
                    estate.find(Kinds.GOAL, share.name()),
                    assets.after(estate, share, mibps),
                    taken.size(),
                    standings.containsKey(share.volume()),
                    Optional.ofNullable(rehearsed.get(share.volume()))));
        }
        return rows;
    }

    private Assets.State state(Estate estate, Share share, SnapshotViews.Brief brief) {
        return new Assets.State(
                brief.name(),
                brief.at(),
                changed.changedSince(
                        List.of(share.name()),
                        brief.number(),
                        estate.volumes().get(share.volume()).blockSize()));
    }

    private static Optional<Assets.State> copy(Estate estate, Share share, Copies.Standing standing) {
        String name =
                estate.find(Kinds.PAIR, share.volume()).map(ReplicaPair::copy).orElse("");
        return standing.whole().map(at -> new Assets.State(name, at, standing.lacks()));
    }

    /** What falls short of what is wanted, for Look. */
    public List<Attention> attention() {
        Estate estate = estates.load();
        Instant now = clock.instant();
        List<Share> wanted = estate.all(Kinds.GOAL).keySet().stream()
                .flatMap(name -> Stream.ofNullable(estate.shares().get(name)))
                .toList();
        List<Attention> found = new ArrayList<>();
        for (Row row : of(wanted)) {
            for (Loss loss : Loss.values()) {
                row.shortfall(loss, now)
                        .ifPresent(why -> found.add(new Attention(
                                Attention.Urgency.WATCH,
                                new Attention.Subject(Attention.Area.PROTECTION, row.share.name()),
                                "Share " + row.share.name(),
                                "with " + loss.title() + ", " + why,
                                Optional.empty(),
                                "as long as that is so",
                                Mending.of(row, loss, Optional::empty).said())));
            }
        }
        estate.all(Kinds.RESERVE)
                .values()
                .forEach(rule -> overflow(Attention.Area.RESERVE, rule.volume(), reserves.daysUntilFull(rule))
                        .ifPresent(found::add));
        estate.all(Kinds.POOL_RESERVE)
                .values()
                .forEach(rule -> overflow(Attention.Area.POOL_RESERVE, rule.pool(), reserves.daysUntilFull(rule))
                        .ifPresent(found::add));
        return found;
    }

    /** A reserve that is full, or soon will be. */
    private Optional<Attention> overflow(Attention.Area area, String name, int days) {
        return days < 0 || days > SOON_DAYS
                ? Optional.empty()
                : Optional.of(new Attention(
                        Attention.Urgency.WATCH,
                        new Attention.Subject(area, name),
                        "Snapshots of " + (area == Attention.Area.RESERVE ? "volume " : "pool ") + name,
                        days == 0
                                ? "hold what is reserved for them"
                                : "hold what is reserved for them in " + days + " days",
                        days == 0 ? Optional.empty() : Optional.of(clock.today().plusDays(days)),
                        "now",
                        "see their reserve"));
    }
}
