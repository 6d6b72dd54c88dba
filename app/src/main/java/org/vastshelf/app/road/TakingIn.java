package org.vastshelf.app.road;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.common.CommonShiftStore;
import org.vastshelf.app.common.CommonUnits;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.Basis;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.SavingRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.TieringRule;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.limit.Account;

/**
 * Makes common units of the blocks of files, and gives files blocks of their own again. Nobody sees a difference but in
 * what a volume takes: contents, times and owners stay, and so does what snapshots show.
 */
@Service
public class TakingIn {

    private final EstateStore estates;
    private final RuleBooks books;
    private final LivesStore lives;
    private final PlacesStore folders;
    private final TakingInStore files;
    private final TallyStore tallies;
    private final VolumeRoomStore rooms;
    private final CommonUnits units;
    private final CommonShiftStore shifts;
    private final AccountStore accounts;
    private final Transactions transactions;

    TakingIn(
            EstateStore estates,
            RuleBooks books,
            LivesStore lives,
            PlacesStore folders,
            TakingInStore files,
            TallyStore tallies,
            VolumeRoomStore rooms,
            CommonUnits units,
            CommonShiftStore shifts,
            AccountStore accounts,
            Transactions transactions) {
        this.estates = estates;
        this.books = books;
        this.lives = lives;
        this.folders = folders;
        this.files = files;
        this.tallies = tallies;
        this.rooms = rooms;
        this.units = units;
        this.shifts = shifts;
        this.accounts = accounts;
        this.transactions = transactions;
    }

    /**
     * A place in the order of a share's files.
     *
     * @param folder its number
     * @param name of the file, as bytes
     */
    public record Place(int folder, byte[] name) {
        public static final Place START = new Place(-1, new byte[0]);
    }

    /**
     * What became of some files.
     *
     * @param bytes of them, read
     * @param saved bytes by which the volume takes less; negative where it takes more
     * @param last where to go on behind; empty when that was all
     * @param lacking bytes for which there was no room, and then nothing was done
     */
    public record Done(long files, long bytes, long saved, Optional<Place> last, long lacking) {}

    /** Takes in some files of a share that a rule wants, beginning behind a place. */
    public Done take(SavingRule rule, String shareName, Place behind, int most, long mostBytes, Instant now) {
        return transactions.run(() -> {
            RuleBook book = books.of(estates.held());
            Share share = book.share(shareName);
            Volume volume = book.volume(share);
            Optional<Integer> catalogue = files.catalogue(shareName);
            if (catalogue.isEmpty()) {
                return new Done(0, 0, 0, Optional.empty(), 0);
            }
            shifts.note(volume.name());
            Epoch epoch = lives.holdTree(share);
            List<TakingInStore.Found> some = files.whole(
                    catalogue.get(), behind, now.getEpochSecond() - rule.leastDays() * 86_400L, volume, most);
            NavigableSet<Integer> snapshots = files.snapshots(volume.name());
            List<TakingInStore.Found> wanted = new ArrayList<>();
            Optional<Place> last = Optional.empty();
            long bytes = 0;
            for (TakingInStore.Found found : some) {
                if (bytes >= mostBytes) {
                    break;
                }
                last = Optional.of(
                        new Place(found.folderNo(), found.file().row().name()));
                if (rule.wants(facts(shareName, found), now) && mayBeTaken(found.file(), snapshots)) {
                    wanted.add(found);
                    bytes += found.file().row().bytes();
                }
            }
            long saved = wanted.isEmpty() ? 0 : take(rule, share, catalogue.get(), wanted, epoch, book, volume);
            return new Done(wanted.size(), bytes, saved, last, 0);
        });
    }

    private static TieringRule.Facts facts(String share, TakingInStore.Found found) {
        FileRow row = found.file().row();
        return new TieringRule.Facts(
                share,
                found.folder().child(PathBytes.shown(row.name())),
                row.bytes(),
                row.kind(),
                row.owner(),
                row.modified(),
                row.accessed());
    }

    /**
     * Blocks that are older than the entry of a file belong to earlier versions as well; as long as a snapshot has one of
     * those, they stay.
     */
    private static boolean mayBeTaken(RoadStore.Found file, NavigableSet<Integer> snapshots) {
        Integer held = snapshots.floor(file.lived().born());
        return !file.contents().isCold()
                && (held == null
                        || file.lived().blocks().byBirth().keySet().stream().noneMatch(born -> born < held));
    }

    private long take(
            SavingRule rule,
            Share share,
            int catalogue,
            List<TakingInStore.Found> wanted,
            Epoch epoch,
            RuleBook book,
            Volume volume) {
        rooms.lock(book, volume, 0);
        int manner = units.manner(rule);
        long more = units.count(
                volume.name(),
                wanted.stream()
                        .map(f -> new CommonUnits.Use(
                                manner, f.file().contents(), 1, f.file().row().allocated()))
                        .toList());
        files.takenIn(catalogue, wanted, manner);
        long freed = changed(share, wanted, epoch, row -> -row.allocated());
        rooms.take(book, volume, freed, 0);
        return -freed - more;
    }

    private interface Growth {
        long of(FileRow row);
    }

    /** Counts in folders that files take more, or less; says how much all together. */
    private long changed(Share share, List<TakingInStore.Found> changed, Epoch epoch, Growth growth) {
        Map<FilePath, RoadStore.Place> places = folders.made(
                share.name(), changed.stream().map(TakingInStore.Found::folder).collect(Collectors.toSet()), epoch);
        Map<DeliveryStore.Row, Long> grown = new TreeMap<>(
                Comparator.comparing((DeliveryStore.Row row) -> row.place().folder())
                        .thenComparing(row -> row.file().name(), Arrays::compareUnsigned));
        changed.forEach(found -> grown.put(
                new DeliveryStore.Row(
                        places.get(found.folder()),
                        found.file().row(),
                        found.file().contents(),
                        found.file().lived().born()),
                growth.of(found.file().row())));
        tallies.grown(grown);
        return grown.values().stream().mapToLong(Long::longValue).sum();
    }

    /** Gives some files of a share blocks of their own again, if there is room for them; earlier versions last. */
    public Done giveBack(String shareName, Place behind, int most, long mostBytes) {
        return transactions.run(() -> {
            RuleBook book = books.of(estates.held());
            Share share = book.share(shareName);
            Volume volume = book.volume(share);
            Optional<Integer> catalogue = files.catalogue(shareName);
            if (catalogue.isEmpty()) {
                return new Done(0, 0, 0, Optional.empty(), 0);
            }
            shifts.note(volume.name());
            Epoch epoch = lives.holdTree(share);
            List<TakingInStore.Found> some = new ArrayList<>();
            long bytes = 0;
            for (TakingInStore.Found found : files.takenIn(catalogue.get(), behind, volume, most)) {
                if (bytes < mostBytes) {
                    some.add(found);
                    bytes += found.file().row().bytes();
                }
            }
            return some.isEmpty()
                    ? givePastBack(book, volume, catalogue.get(), most)
                    : giveBack(book, share, catalogue.get(), some, epoch);
        });
    }

    private static CommonUnits.Use ending(Volume volume, int manner, org.vastshelf.core.content.Contents contents) {
        return new CommonUnits.Use(manner, contents, -1, volume.allocatedBytes(contents.length()));
    }

    private Done giveBack(RuleBook book, Share share, int catalogue, List<TakingInStore.Found> some, Epoch epoch) {
        Volume volume = book.volume(share);
        long growth = some.stream()
                .mapToLong(f -> volume.allocatedBytes(f.file().row().bytes()))
                .sum();
        Map<Account, Long> growths = onDisk(book, share, some);
        long room = rooms.lock(book, volume, growth).value();
        if (room < growth) {
            return new Done(0, 0, 0, Optional.empty(), growth - room);
        }
        accounts.add(growths);
        long less = units.count(
                volume.name(),
                some.stream()
                        .map(f -> ending(
                                volume, f.file().lived().common(), f.file().contents()))
                        .toList());
        some.forEach(f ->
                files.mark(catalogue, f, 0, volume.allocatedBytes(f.file().row().bytes())));
        long grown = changed(share, some, epoch, row -> volume.allocatedBytes(row.bytes()));
        requireTaken(rooms.take(book, volume, grown, 0));
        TakingInStore.Found last = some.getLast();
        return new Done(
                some.size(),
                some.stream().mapToLong(f -> f.file().row().bytes()).sum(),
                -grown - less,
                Optional.of(new Place(last.folderNo(), last.file().row().name())),
                0);
    }

    /** What accounts come to hold that go by blocks, and now are locked; what their units took is counted off later. */
    private Map<Account, Long> onDisk(RuleBook book, Share share, List<TakingInStore.Found> some) {
        Map<AccountStore.Key, Long> growths = new LinkedHashMap<>();
        some.forEach(found -> AccountKeys.at(
                        book,
                        share.name(),
                        found.folder().child(PathBytes.shown(found.file().row().name())),
                        Owner.of(found.file().row()))
                .filter(key -> key.rule().basis() == Basis.ON_DISK)
                .forEach(key -> growths.merge(
                        key,
                        book.volume(share).allocatedBytes(found.file().row().bytes()),
                        Long::sum)));
        return accounts.lock(List.copyOf(growths.keySet())).stream()
                .collect(Collectors.toMap(account -> account, account -> growths.get(AccountStore.Key.of(account))));
    }

    private static void requireTaken(boolean taken) {
        if (!taken) {
            throw new IllegalStateException("the room that was locked is gone");
        }
    }

    /** Versions that no snapshot has any more need no blocks; they go by themselves. */
    private Done givePastBack(RuleBook book, Volume volume, int catalogue, int most) {
        NavigableSet<Integer> snapshots = files.snapshots(volume.name());
        List<TakingInStore.Past> some = files.past(catalogue, most);
        Map<Integer, Map<Integer, Long>> held = new TreeMap<>();
        for (TakingInStore.Past past : some) {
            Integer holder = snapshots.floor(past.died());
            boolean isHeld = holder != null && holder > past.born();
            held.computeIfAbsent(past.died(), died -> new TreeMap<>())
                    .merge(past.born(), isHeld ? volume.allocatedBytes(past.bytes()) : 0, Long::sum);
        }
        long growth = held.values().stream()
                .flatMap(byBirth -> byBirth.values().stream())
                .mapToLong(Long::longValue)
                .sum();
        long room = rooms.lock(book, volume, growth, growth).value();
        if (room < growth) {
            return new Done(0, 0, 0, Optional.empty(), growth - room);
        }
        long less = units.count(
                volume.name(),
                some.stream()
                        .map(past -> ending(volume, past.common(), past.contents()))
                        .toList());
        some.forEach(past -> files.own(catalogue, past, volume.allocatedBytes(past.bytes())));
        held.forEach((died, byBirth) -> {
            byBirth.values().removeIf(bytes -> bytes == 0);
            lives.hold(volume.name(), byBirth, new Epoch(died, died));
        });
        requireTaken(rooms.take(book, volume, 0, growth));
        return new Done(
                some.size(),
                some.stream().mapToLong(TakingInStore.Past::bytes).sum(),
                -growth - less,
                some.size() < most ? Optional.empty() : Optional.of(Place.START),
                0);
    }
}
