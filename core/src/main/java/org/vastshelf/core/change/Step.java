package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.limit.LimitRule;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/**
 * One act of an order. Each knows what the estate is like after it and how to get back to what it was before; both
 * are pure, and whoever carries out an order stores the difference.
 */
public sealed interface Step {

    String title();

    /** How long the devices are expected to take. */
    Duration expected();

    Estate apply(Estate estate);

    /** Why the estate, which other orders may have changed since, does not allow the step any more. */
    default Optional<String> obstacle(Estate estate) {
        return Optional.empty();
    }

    /** What has to end first, for a step that can't be done side by side with it. */
    default Optional<Wait> waits(Estate estate) {
        return Wait.forPower(estate, servers(estate));
    }

    /** File servers that do the step. */
    default List<String> servers(Estate estate) {
        return List.of();
    }

    /** The step as it can be done on the estate as it is now, knowing all that {@link #undo} will need. */
    default Step on(Estate estate) {
        return this;
    }

    /** Why it can't be undone without harm to what others have built upon it since. */
    default Optional<String> undoObstacle(Estate estate, Usage usage) {
        return Optional.empty();
    }

    /** The estate as it was before {@link #apply}. */
    Estate undo(Estate estate);

    private static Optional<String> unless(boolean fine, String why) {
        return fine ? Optional.empty() : Optional.of(why);
    }

    private static List<String> serversOf(List<String> drives) {
        return drives.stream()
                .map(key -> key.substring(0, key.indexOf('/')))
                .distinct()
                .toList();
    }

    private static List<String> serverOfPool(Estate estate, String pool) {
        return Stream.ofNullable(estate.pools().get(pool)).map(Pool::server).toList();
    }

    private static List<String> serverOfVolume(Estate estate, String volume) {
        return Stream.ofNullable(estate.volumes().get(volume))
                .flatMap(v -> serverOfPool(estate, v.pool()).stream())
                .toList();
    }

    /** Writes and reads every sector; all drives at once, so the slowest counts. */
    record CheckSurfaces(List<String> drives, Duration expected) implements Step {
        @Override
        public String title() {
            return "Check the surfaces of " + Counted.of(drives.size(), "drive");
        }

        @Override
        public List<String> servers(Estate estate) {
            return serversOf(drives);
        }

        @Override
        public Estate apply(Estate estate) {
            return estate;
        }

        @Override
        public Estate undo(Estate estate) {
            return estate;
        }
    }

    /** Takes drives over; what was on them is gone. Undone, they are unclaimed again. */
    record ClaimDrives(List<String> drives) implements Step {
        @Override
        public String title() {
            return "Claim " + Counted.of(drives.size(), "drive");
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(2).multipliedBy(drives.size());
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return drives.stream()
                    .filter(key -> estate.drives().get(key) == null
                            || estate.drives().get(key).state() != DriveState.UNCLAIMED)
                    .findFirst()
                    .map(key -> "drive " + key + " is not unclaimed any more");
        }

        @Override
        public List<String> servers(Estate estate) {
            return serversOf(drives);
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withDrives(estate.drives(drives).stream()
                    .map(d -> d.wiped().in(DriveState.CLAIMED))
                    .toList());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withDrives(drives.stream()
                    .flatMap(key -> Stream.ofNullable(estate.drives().get(key)))
                    .filter(d -> d.state() == DriveState.CLAIMED)
                    .map(d -> d.in(DriveState.UNCLAIMED))
                    .toList());
        }
    }

    record CreatePool(Pool pool) implements Step {
        @Override
        public String title() {
            return "Create pool " + pool.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(30);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return unless(!estate.pools().containsKey(pool.name()), "the pool name '" + pool.name() + "' is taken")
                    .or(() -> pool.drives()
                            .filter(key -> estate.drives().get(key) == null
                                    || estate.drives().get(key).state() != DriveState.CLAIMED)
                            .findFirst()
                            .map(key -> "drive " + key + " is not claimed any more"));
        }

        @Override
        public List<String> servers(Estate estate) {
            return List.of(pool.server());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            Pool now = estate.pools().get(pool.name());
            return unless(now != null, "there is no pool '" + pool.name() + "' any more")
                    .or(() -> unless(
                            now.drives().allMatch(d -> pool.drives().anyMatch(d::equals)),
                            "pool " + pool.name() + " has got more drives since"));
        }

        @Override
        public Estate apply(Estate estate) {
            return inState(inState(estate, pool.members(), DriveState.IN_USE), pool.spares(), DriveState.SPARE)
                    .withPool(pool);
        }

        @Override
        public Estate undo(Estate estate) {
            Estate next = estate.withoutPool(pool.name()).withoutScrub(pool.name());
            for (String drive : estate.pools().get(pool.name()).members()) {
                next = next.withoutRebuild(drive);
            }
            List<String> left = estate.pools()
                    .get(pool.name())
                    .drives()
                    .filter(key -> estate.drives().get(key).state() != DriveState.FAILED)
                    .toList();
            return inState(next, left, DriveState.CLAIMED);
        }

        private static Estate inState(Estate estate, List<String> keys, DriveState state) {
            List<Drive> changed =
                    estate.drives(keys).stream().map(d -> d.in(state)).toList();
            return estate.withDrives(changed);
        }
    }

    record CreateVolume(Volume volume) implements Step {
        @Override
        public String title() {
            return "Create volume " + volume.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(10);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            if (!estate.pools().containsKey(volume.pool())) {
                return Optional.of("there is no pool '" + volume.pool() + "'");
            }
            return estate.volumes().containsKey(volume.name())
                    ? Optional.of("the volume name '" + volume.name() + "' is taken")
                    : Optional.empty();
        }

        @Override
        public List<String> servers(Estate estate) {
            return serverOfPool(estate, volume.pool());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            Bytes used = usage.of(volume.name()).used();
            return unless(
                            volume.equals(estate.volumes().get(volume.name())),
                            "volume " + volume.name() + " was changed since")
                    .or(() -> unless(
                            used.isZero(), "volume " + volume.name() + " holds " + used.value() + " bytes by now"));
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withVolume(volume);
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withoutVolume(volume.name());
        }
    }

    /** Opens a share, or puts it in place of the one before. */
    record OpenShare(Share share, Optional<Share> before) implements Step {
        @Override
        public String title() {
            return before.isPresent() ? "Change share " + share.name() : "Open share " + share.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(5);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            if (!estate.volumes().containsKey(share.volume())) {
                return Optional.of("there is no volume '" + share.volume() + "'");
            }
            return Optional.ofNullable(estate.shares().get(share.name())).equals(before)
                    ? Optional.empty()
                    : Optional.of("share '" + share.name() + "' was changed meanwhile");
        }

        @Override
        public List<String> servers(Estate estate) {
            return serverOfVolume(estate, share.volume());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return unless(
                    share.equals(estate.shares().get(share.name())), "share " + share.name() + " was changed since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withShare(share);
        }

        @Override
        public Estate undo(Estate estate) {
            return before.map(estate::withShare).orElseGet(() -> estate.withoutShare(share.name()));
        }
    }

    record CloseShare(Share share) implements Step {
        @Override
        public String title() {
            return "Close share " + share.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(5);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return unless(
                    share.equals(estate.shares().get(share.name())),
                    "share '" + share.name() + "' was changed meanwhile");
        }

        @Override
        public List<String> servers(Estate estate) {
            return serverOfVolume(estate, share.volume());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return unless(
                    !estate.shares().containsKey(share.name()), "share " + share.name() + " was opened again since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withoutShare(share.name());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withShare(share);
        }
    }

    record SetLimit(LimitRule rule, Optional<LimitRule> before) implements Step {
        @Override
        public String title() {
            return (before.isPresent() ? "Change the limit of " : "Set the limit of ") + rule.title();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return unless(
                    Optional.ofNullable(estate.limits().get(rule.key())).equals(before),
                    "the limit of " + rule.title() + " was changed meanwhile");
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return unless(
                    rule.equals(estate.limits().get(rule.key())),
                    "the limit of " + rule.title() + " was changed since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withLimit(rule);
        }

        @Override
        public Estate undo(Estate estate) {
            return before.map(estate::withLimit).orElseGet(() -> estate.withoutLimit(rule.key()));
        }
    }

    record DropLimit(LimitRule rule) implements Step {
        @Override
        public String title() {
            return "Drop the limit of " + rule.title();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return unless(
                    rule.equals(estate.limits().get(rule.key())),
                    "the limit of " + rule.title() + " was changed meanwhile");
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return unless(
                    !estate.limits().containsKey(rule.key()), "the limit of " + rule.title() + " was set again since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withoutLimit(rule.key());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withLimit(rule);
        }
    }

    /** Takes time and leaves the estate as it is: copying, checking, restarting. */
    record Work(String title, Duration expected, List<String> at) implements Step {
        public Work {
            // Orders written before steps waited for power do not name it.
            at = at == null ? List.of() : List.copyOf(at);
        }

        @Override
        public List<String> servers(Estate estate) {
            return at;
        }

        @Override
        public Estate apply(Estate estate) {
            return estate;
        }

        @Override
        public Estate undo(Estate estate) {
            return estate;
        }
    }

    /** One edit of a pool. */
    record ChangePool(String title, Duration expected, String pool, PoolEdit edit) implements Step {

        @Override
        public Optional<String> obstacle(Estate estate) {
            Pool now = estate.pools().get(pool);
            return now == null ? Optional.of("there is no pool '" + pool + "'") : edit.obstacle(estate, now);
        }

        @Override
        public Optional<Wait> waits(Estate estate) {
            return Step.super.waits(estate).or(() -> edit.copies() ? Wait.forRebuilds(estate, pool) : Optional.empty());
        }

        @Override
        public List<String> servers(Estate estate) {
            return serverOfPool(estate, pool);
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            Pool now = estate.pools().get(pool);
            return now == null
                    ? Optional.of("there is no pool '" + pool + "' any more")
                    : edit.undoObstacle(estate, now);
        }

        @Override
        public Step on(Estate estate) {
            return new ChangePool(
                    title, expected, pool, edit.on(estate, estate.pools().get(pool)));
        }

        @Override
        public Estate apply(Estate estate) {
            return edit.apply(estate, estate.pools().get(pool));
        }

        @Override
        public Estate undo(Estate estate) {
            return edit.undo(estate, estate.pools().get(pool));
        }
    }

    /**
     * A pool that goes, and its drives with it.
     *
     * @param pool as it was when it went
     * @param drives its members and hot spares as they were then
     */
    record DissolvePool(Pool pool, List<Drive> drives, Optional<Scrub> scrub) implements Step {
        public DissolvePool {
            drives = List.copyOf(drives);
            // Orders written before definitions held schedules do not name it.
            scrub = scrub == null ? Optional.empty() : scrub;
        }

        @Override
        public String title() {
            return "Dissolve pool " + pool.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(20);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            if (!estate.pools().containsKey(pool.name())) {
                return Optional.of("there is no pool '" + pool.name() + "'");
            }
            return estate.volumes().values().stream()
                    .filter(v -> v.isOn(pool.name()))
                    .findFirst()
                    .map(v -> "volume " + v.name() + " lies on pool " + pool.name());
        }

        @Override
        public Step on(Estate estate) {
            Pool now = estate.pools().get(pool.name());
            return new DissolvePool(
                    now,
                    estate.drives(now.drives().toList()),
                    Optional.ofNullable(estate.scrubs().get(pool.name())));
        }

        @Override
        public List<String> servers(Estate estate) {
            return List.of(pool.server());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return unless(!estate.pools().containsKey(pool.name()), "the pool name '" + pool.name() + "' is taken")
                    .or(() -> drives.stream()
                            .filter(d -> !isBack(d, estate.drives().get(d.key())))
                            .findFirst()
                            .map(d -> "drive " + d.key() + " of pool " + pool.name() + " was put to other use since"));
        }

        private static boolean isBack(Drive before, @Nullable Drive now) {
            return now != null && now.label().equals(before.label()) && (now.isFree() || now.state() == before.state());
        }

        @Override
        public Estate apply(Estate estate) {
            Estate next = estate.withoutPool(pool.name()).withoutScrub(pool.name());
            for (Drive drive : drives) {
                next = next.withoutRebuild(drive.key());
            }
            return next.withDrives(drives.stream()
                    .map(d -> d.state() == DriveState.FAILED ? d : d.wiped().in(DriveState.UNCLAIMED))
                    .toList());
        }

        @Override
        public Estate undo(Estate estate) {
            Estate next = estate.withPool(pool).withDrives(drives);
            return scrub.map(next::withScrub).orElse(next);
        }
    }

    record AddEnclosure(Arrival arrival) implements Step {
        @Override
        public String title() {
            return "Take enclosure " + arrival.enclosure().key() + " with "
                    + Counted.of(arrival.drives().size(), "drive") + " in";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(45);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            String key = arrival.enclosure().key();
            return unless(!estate.enclosures().containsKey(key), "enclosure " + key + " is there already")
                    .or(() -> unless(
                            arrival.equals(estate.arrivals().get(key)),
                            "enclosure " + key + " is not as the rescan saw it any more"));
        }

        @Override
        public List<String> servers(Estate estate) {
            return List.of(arrival.enclosure().server());
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withEnclosure(arrival.enclosure())
                    .withDrives(arrival.drives())
                    .withoutArrival(arrival.enclosure().key());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withoutEnclosure(arrival.enclosure().key())
                    .withoutDrives(arrival.drives().stream().map(Drive::key).toList())
                    .withArrival(arrival);
        }
    }

    record RemoveEnclosure(Enclosure enclosure, List<Drive> drives) implements Step {
        @Override
        public String title() {
            return "Take enclosure " + enclosure.key() + " with " + Counted.of(drives.size(), "drive") + " out";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(30);
        }

        @Override
        public Step on(Estate estate) {
            return new RemoveEnclosure(enclosure, estate.drivesIn(enclosure).toList());
        }

        @Override
        public List<String> servers(Estate estate) {
            return List.of(enclosure.server());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return unless(
                    !estate.enclosures().containsKey(enclosure.key()),
                    "enclosure " + enclosure.key() + " was taken in again since");
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            if (!enclosure.equals(estate.enclosures().get(enclosure.key()))) {
                return Optional.of("enclosure " + enclosure.key() + " is not there any more");
            }
            return estate.drivesIn(enclosure)
                    .filter(d -> estate.poolOf(d).isPresent())
                    .findFirst()
                    .map(d -> "drive " + d.key() + " belongs to pool "
                            + estate.poolOf(d).orElseThrow().name());
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withoutDrives(drives.stream().map(Drive::key).toList())
                    .withoutEnclosure(enclosure.key());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withEnclosure(enclosure).withDrives(drives);
        }
    }

    /** Drives that somebody takes out of their bays. */
    record TakeOutDrives(List<Drive> drives) implements Step {
        @Override
        public String title() {
            return "Take " + Counted.of(drives.size(), "drive") + " out of the bays";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(10);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return drives.stream()
                    .flatMap(d -> Stream.ofNullable(estate.drives().get(d.key())))
                    .filter(d -> estate.poolOf(d).isPresent())
                    .findFirst()
                    .map(d -> "drive " + d.key() + " belongs to pool "
                            + estate.poolOf(d).orElseThrow().name());
        }

        @Override
        public Step on(Estate estate) {
            return new TakeOutDrives(drives.stream()
                    .flatMap(d -> Stream.ofNullable(estate.drives().get(d.key())))
                    .toList());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return drives.stream()
                    .filter(d -> estate.drives().containsKey(d.key()))
                    .findFirst()
                    .map(d -> "bay " + d.key() + " holds another drive since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withoutDrives(drives.stream().map(Drive::key).toList());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withDrives(drives);
        }
    }

    /** A volume as it was and as it will be. */
    record ChangeVolume(String title, Duration expected, Volume before, Volume after) implements Step {
        @Override
        public Optional<String> obstacle(Estate estate) {
            if (!before.equals(estate.volumes().get(before.name()))) {
                return Optional.of("volume " + before.name() + " was changed meanwhile");
            }
            return estate.pools().containsKey(after.pool())
                    ? Optional.empty()
                    : Optional.of("there is no pool '" + after.pool() + "'");
        }

        @Override
        public List<String> servers(Estate estate) {
            return serverOfPool(estate, after.pool());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return unless(
                    after.equals(estate.volumes().get(after.name())), "volume " + after.name() + " was changed since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withVolume(after);
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withVolume(before);
        }
    }

    /** Room on the target of a move, held from its beginning, so that nothing else takes it. */
    record HoldRoom(String volume, String from, String to) implements Step {
        @Override
        public String title() {
            return "Hold room for volume " + volume + " on pool " + to;
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(2);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return elsewhere(estate, volume, from)
                    .or(() -> estate.pools().containsKey(to)
                            ? Optional.empty()
                            : Optional.of("there is no pool '" + to + "'"))
                    .or(() -> estate.volumes()
                            .get(volume)
                            .movingTo()
                            .map(other -> "volume " + volume + " moves to pool " + other + " already"));
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withVolume(estate.volumes().get(volume).moving(Optional.of(to)));
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withVolume(estate.volumes().get(volume).moving(Optional.empty()));
        }

        @Override
        public List<String> servers(Estate estate) {
            return Stream.of(from, to)
                    .flatMap(pool -> serverOfPool(estate, pool).stream())
                    .toList();
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return elsewhere(estate, volume, from);
        }

        private static Optional<String> elsewhere(Estate estate, String volume, String from) {
            Volume now = estate.volumes().get(volume);
            return now != null && now.pool().equals(from)
                    ? Optional.empty()
                    : Optional.of("volume " + volume + " does not lie on pool " + from + " any more");
        }
    }

    /** The end of a move. Whatever else was changed about the volume meanwhile goes with it. */
    record SwitchOver(String volume, String from, String to) implements Step {
        @Override
        public String title() {
            return "Switch volume " + volume + " over to pool " + to;
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(3);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return HoldRoom.elsewhere(estate, volume, from)
                    .or(() -> estate.pools().containsKey(to)
                                    && !estate.pools().get(to).isLost()
                            ? Optional.empty()
                            : Optional.of("pool " + to + " is lost or gone"));
        }

        @Override
        public List<String> servers(Estate estate) {
            return new HoldRoom(volume, from, to).servers(estate);
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return HoldRoom.elsewhere(estate, volume, to)
                    .or(() -> unless(
                            estate.volumes().get(volume).movingTo().isEmpty(),
                            "volume " + volume + " moves on to another pool"));
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withVolume(estate.volumes().get(volume).on(to));
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withVolume(estate.volumes().get(volume).on(from).moving(Optional.of(to)));
        }
    }

    record RemoveVolume(Volume volume) implements Step {
        @Override
        public String title() {
            return "Remove volume " + volume.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(10);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            Volume now = estate.volumes().get(volume.name());
            return unless(now != null && now.movingTo().isEmpty(), "volume " + volume.name() + " is gone or on its way")
                    .or(() -> estate.sharesOn(volume.name())
                            .findFirst()
                            .map(s -> "share " + s.name() + " serves volume " + volume.name()));
        }

        @Override
        public Step on(Estate estate) {
            return new RemoveVolume(estate.volumes().get(volume.name()));
        }

        @Override
        public List<String> servers(Estate estate) {
            return serverOfVolume(estate, volume.name());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return unless(
                    !estate.volumes().containsKey(volume.name()), "the volume name '" + volume.name() + "' is taken");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withoutVolume(volume.name());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withVolume(volume);
        }
    }

    /** A whole estate where nothing was. */
    record ApplyEstate(EstateDefinition definition) implements Step {
        @Override
        public String title() {
            return "Make the estate";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(4);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return estate.servers().isEmpty() && estate.sites().isEmpty()
                    ? Optional.empty()
                    : Optional.of("the estate is not empty");
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return unless(EstateDefinition.of(estate).equals(definition), "the estate was changed since");
        }

        @Override
        public Estate apply(Estate estate) {
            return definition.toEstate();
        }

        @Override
        public Estate undo(Estate estate) {
            return Estate.EMPTY;
        }
    }

    /** How often a pool is scrubbed; what runs or ran is left as it is. */
    record SetScrub(String pool, int everyDays, int before) implements Step {
        @Override
        public String title() {
            return "Set the scrub schedule of pool " + pool;
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return unless(estate.pools().containsKey(pool), "there is no pool '" + pool + "'")
                    .or(() ->
                            unless(days(estate) == before, "the scrub schedule of " + pool + " was changed meanwhile"));
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return unless(estate.pools().containsKey(pool), "there is no pool '" + pool + "' any more")
                    .or(() ->
                            unless(days(estate) == everyDays, "the scrub schedule of " + pool + " was changed since"));
        }

        private int days(Estate estate) {
            return estate.scrubs().getOrDefault(pool, Scrub.never(pool)).everyDays();
        }

        @Override
        public Estate apply(Estate estate) {
            return with(estate, everyDays);
        }

        @Override
        public Estate undo(Estate estate) {
            return with(estate, before);
        }

        private Estate with(Estate estate, int days) {
            Scrub next = estate.scrubs().getOrDefault(pool, Scrub.never(pool)).every(days);
            return next.equals(Scrub.never(pool)) ? estate.withoutScrub(pool) : estate.withScrub(next);
        }
    }
}
