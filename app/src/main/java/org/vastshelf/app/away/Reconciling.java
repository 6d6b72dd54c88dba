package org.vastshelf.app.away;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.away.BucketReport.Found;
import org.vastshelf.app.away.BucketReport.Lacking;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.cold.Bucket;
import org.vastshelf.app.store.InstallationStore;
import org.vastshelf.app.store.Transactions;

/**
 * Compares the objects of a bucket with what is known of them, both in the order of their keys, some at a time. An object
 * is noted before it is written, and forgotten after it is removed: one that lies there and is not noted by then belongs
 * to nothing. It is removed if this installation wrote it, after as long as it keeps objects of files that are gone: who
 * brought an older state of the database back has so long to put its files in place. What others wrote may be all that is
 * left of their files. What was cut off leaves a few of them behind: where they are many, it is rather what is known that
 * is lacking, and all stay.
 */
@Component
class Reconciling {

    private static final int AT_ONCE = 1_000;
    private static final int MOST_TOLD = 50;
    private static final int MOST_REMOVED = 100;

    private final AwayStore objects;
    private final InstallationStore installation;
    private final Transactions transactions;
    private final ShelfClock clock;

    Reconciling(AwayStore objects, InstallationStore installation, Transactions transactions, ShelfClock clock) {
        this.clock = clock;
        this.objects = objects;
        this.installation = installation;
        this.transactions = transactions;
    }

    /** @param alive asked for now and then while it lasts */
    Found reconcile(Bucket bucket, Runnable alive) {
        Sums sums = new Sums(bucket);
        List<Bucket.Told> some;
        String after = Departing.FOLDER;
        do {
            alive.run();
            some = bucket.page(Departing.FOLDER, after, AT_ONCE);
            boolean last = some.size() < AT_ONCE;
            String upTo = last ? AFTER_ALL : some.getLast().key();
            Map<String, AwayStore.Placed> known = objects.placed(bucket.store().name(), after, upTo);
            some.forEach(told -> sums.lies(told, Optional.ofNullable(known.remove(told.key()))));
            known.values().forEach(sums::doesNotLie);
            after = upTo;
        } while (some.size() == AT_ONCE);
        sums.clear();
        return sums.found();
    }

    /** A key behind all that objects have. */
    private static final String AFTER_ALL = Departing.FOLDER + "~";

    private final class Sums {

        private final Bucket bucket;
        private final List<Lacking> lacking = new ArrayList<>();
        private final List<Bucket.Told> ofNothing = new ArrayList<>();
        private long count;
        private long bytes;
        private long removed;
        private long removedBytes;
        private long strange;
        private long missing;
        private long differing;

        Sums(Bucket bucket) {
            this.bucket = bucket;
        }

        void lies(Bucket.Told told, Optional<AwayStore.Placed> known) {
            count++;
            bytes += told.bytes();
            strange += known.isEmpty() ? 1 : 0;
            if (known.isEmpty() && ofNothing.size() <= MOST_REMOVED && isOver(told.key())) {
                ofNothing.add(told);
            }
            known.filter(placed -> placed.isHeld() && placed.length() != told.bytes())
                    .ifPresent(placed -> {
                        differing++;
                        lacks(placed, told.bytes());
                    });
        }

        private boolean isOver(String key) {
            return bucket.metadata(key)
                    .filter(told -> Labels.by(told).equals(Optional.of(installation.id())))
                    .filter(told -> !Labels.isKept(told, clock.instant()))
                    .isPresent();
        }

        void clear() {
            if (ofNothing.size() > MOST_REMOVED) {
                return;
            }
            for (Bucket.Told told : ofNothing) {
                if (transactions.run(() -> isRemoved(told.key()))) {
                    removed++;
                    removedBytes += told.bytes();
                    count--;
                    bytes -= told.bytes();
                }
                strange--;
            }
        }

        /** Unless files were put in place from the bucket alone meanwhile: then this is what one of them has. */
        private boolean isRemoved(String key) {
            installation.alone();
            boolean known = objects.find(bucket.store().name(), key).isPresent();
            if (!known) {
                bucket.remove(key);
            }
            return !known;
        }

        /** It may have come since the bucket was read. */
        void doesNotLie(AwayStore.Placed placed) {
            if (placed.isHeld() && bucket.metadata(placed.key()).isEmpty() && objects.isHeld(placed.number())) {
                missing++;
                lacks(placed, null);
            }
        }

        private void lacks(AwayStore.Placed placed, @Nullable Long there) {
            if (lacking.size() < MOST_TOLD) {
                lacking.add(new Lacking(placed.share(), placed.path().text(), placed.key(), placed.length(), there));
            }
        }

        Found found() {
            return new Found(count, bytes, removed, removedBytes, strange, missing, differing, List.copyOf(lacking));
        }
    }
}
