package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.ESTATE_VERSION;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.invariant.Invariants;
import org.vastshelf.core.invariant.Violation;

/**
 * Keeps the estate: read whole, changed under a lock, written as the difference between before and after. A state that
 * must not be is never stored, and a change that changes nothing makes no new version.
 */
@Component
public class EstateStore {

    /** Room for versions that were made and never committed, whose numbers are not used again. */
    private static final long VERSION_STEP = 1L << 30;

    private final DSLContext db;
    private final DocumentStore documents;
    private final List<EstatePart> rows;
    private final UsageStore usage;
    private final Transactions transactions;
    private final Reading reading;
    private final List<EstateFollower> followers;
    private static final Snapshot NOTHING = new Snapshot(-1, Estate.EMPTY);

    private volatile Snapshot cached = NOTHING;
    /** Under which a transaction keeps what it holds. */
    private final Object holding = new Object();

    EstateStore(
            DSLContext db,
            DocumentStore documents,
            List<EstatePart> rows,
            UsageStore usage,
            Transactions transactions,
            Reading reading,
            List<EstateFollower> followers) {
        this.reading = reading;
        this.db = db;
        this.documents = documents;
        this.rows = rows;
        this.usage = usage;
        this.transactions = transactions;
        this.followers = followers;
    }

    /** The estate and its version, which is never that of another estate. */
    public record Snapshot(long version, Estate estate) {}

    /** What a change would leave breaks a rule that holds of every estate; nothing was stored. */
    public static final class NotWhole extends RuntimeException {
        NotWhole(String message) {
            super(message);
        }
    }

    /** The estate as it is now. */
    public Estate load() {
        return snapshot().estate();
    }

    public Snapshot snapshot() {
        return mine().or(this::holding).orElseGet(() -> reading.once(this, this::newest));
    }

    private Snapshot newest() {
        long version = version();
        Snapshot read = cached;
        // Somebody may store another version between two of the reads.
        while (read.version != version) {
            read = read(version);
            version = version();
        }
        return read;
    }

    /** The estate, which nobody changes before this transaction has ended. Others may hold it at the same time. */
    public Snapshot held() {
        return mine().or(this::holding).orElseGet(() -> {
            Snapshot held = read(db.select(ESTATE_VERSION.VERSION)
                    .from(ESTATE_VERSION)
                    .forShare()
                    .fetchSingle(ESTATE_VERSION.VERSION));
            hold(held);
            return held;
        });
    }

    /** What this transaction holds: nobody changes it meanwhile, so that it need not be read again. */
    private Optional<Snapshot> holding() {
        return Optional.ofNullable((Snapshot) TransactionSynchronizationManager.getResource(holding));
    }

    private void hold(Snapshot held) {
        if (!TransactionSynchronizationManager.isSynchronizationActive()) {
            return;
        }
        TransactionSynchronizationManager.bindResource(holding, held);
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCompletion(int status) {
                TransactionSynchronizationManager.unbindResourceIfPossible(holding);
            }
        });
    }

    private long version() {
        return db.select(ESTATE_VERSION.VERSION).from(ESTATE_VERSION).fetchSingle(ESTATE_VERSION.VERSION);
    }

    /** Nobody else who locks this thing of the estate goes on before the transaction has ended. */
    public void lock(Kind<?> kind, String name) {
        documents.lock(kind, name);
    }

    /** What this transaction has made of it. */
    private Optional<Snapshot> mine() {
        return Optional.ofNullable((Snapshot) TransactionSynchronizationManager.getResource(this));
    }

    /** Reads what has changed since the version that is known here. */
    private Snapshot read(long version) {
        Snapshot known = cached;
        if (known.version == version) {
            return known;
        }
        // Versions only grow; a smaller one is that of another database in its place.
        Snapshot base = known.version < version ? known : NOTHING;
        Estate next = base.estate;
        for (EstatePart some : rows) {
            next = some.read(next, base.version);
        }
        Snapshot read = new Snapshot(version, next);
        cached = read;
        return read;
    }

    /**
     * Changes the estate, one at a time across all nodes, in the transaction under way or in one of its own. The
     * answer is a value, so that a transaction goes on after a refusal.
     *
     * @param change what to make of the estate as it is, or why not
     */
    public EstateAnswer change(BiFunction<Estate, Usage, EstateAnswer> change) {
        return transactions.run(() -> {
            Snapshot before = mine().orElseGet(() -> read(db.select(ESTATE_VERSION.VERSION)
                    .from(ESTATE_VERSION)
                    .forUpdate()
                    .fetchSingle(ESTATE_VERSION.VERSION)));
            Usage held = usage.load();
            return switch (change.apply(before.estate, held)) {
                case EstateAnswer.Refused refused -> refused;
                case EstateAnswer.Changed changed -> store(before, changed.estate(), held);
            };
        });
    }

    /**
     * Changes the estate by what happens to it whether anybody wants it or not.
     *
     * @throws NotWhole when that would leave what must not be
     */
    public Estate happen(BiFunction<Estate, Usage, Estate> change) {
        return switch (change((estate, held) -> new EstateAnswer.Changed(change.apply(estate, held)))) {
            case EstateAnswer.Changed changed -> changed.estate();
            case EstateAnswer.Refused refused -> throw new NotWhole(refused.because());
        };
    }

    private EstateAnswer store(Snapshot before, Estate after, Usage held) {
        if (after.equals(before.estate)) {
            return new EstateAnswer.Changed(before.estate);
        }
        List<Violation> broken = Invariants.brokenBy(before.estate, after, held);
        if (!broken.isEmpty()) {
            return new EstateAnswer.Refused(broken.stream().map(Violation::text).collect(Collectors.joining("; ")));
        }
        long version = before.version + 1 + ThreadLocalRandom.current().nextLong(VERSION_STEP);
        rows.forEach(some -> some.write(before.estate, after, version));
        followers.forEach(follower -> follower.follow(before.estate, after, held));
        db.update(ESTATE_VERSION).set(ESTATE_VERSION.VERSION, version).execute();
        remember(new Snapshot(version, after));
        return new EstateAnswer.Changed(after);
    }

    private void remember(Snapshot made) {
        boolean first = mine().isEmpty();
        TransactionSynchronizationManager.unbindResourceIfPossible(this);
        TransactionSynchronizationManager.bindResource(this, made);
        if (first) {
            TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
                @Override
                public void afterCommit() {
                    cached = mine().orElse(cached);
                }

                @Override
                public void afterCompletion(int status) {
                    TransactionSynchronizationManager.unbindResourceIfPossible(EstateStore.this);
                }
            });
        }
    }
}
