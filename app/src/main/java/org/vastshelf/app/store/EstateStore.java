package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.ESTATE_OBJECT;
import static org.vastshelf.app.store.generated.Tables.ESTATE_VERSION;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Hold;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.invariant.Invariants;
import org.vastshelf.core.invariant.Violation;
import org.vastshelf.core.limit.LimitRule;

/**
 * Keeps the estate: read whole, changed under a lock, written as the difference between before and after. A state that
 * must not be is never stored, and a change that changes nothing makes no new version.
 */
@Component
public class EstateStore {

    /** Room for versions that were made and never committed, whose numbers are not used again. */
    private static final long VERSION_STEP = 1L << 30;

    private final DSLContext db;
    private final StoredJson json;
    private final UsageStore usage;
    private final Transactions transactions;
    private final List<EstateFollower> followers;
    private volatile Snapshot cached = new Snapshot(-1, Estate.EMPTY);

    EstateStore(
            DSLContext db,
            StoredJson json,
            UsageStore usage,
            Transactions transactions,
            List<EstateFollower> followers) {
        this.db = db;
        this.json = json;
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
        return mine().orElseGet(() ->
                read(db.select(ESTATE_VERSION.VERSION).from(ESTATE_VERSION).fetchSingle(ESTATE_VERSION.VERSION)));
    }

    /** The estate, which nobody changes before this transaction has ended. Others may hold it at the same time. */
    public Snapshot held() {
        return mine().orElseGet(() -> read(db.select(ESTATE_VERSION.VERSION)
                .from(ESTATE_VERSION)
                .forShare()
                .fetchSingle(ESTATE_VERSION.VERSION)));
    }

    /** Nobody else who locks this thing of the estate goes on before the transaction has ended. */
    public void lock(String kind, String name) {
        db.select(ESTATE_OBJECT.KIND)
                .from(ESTATE_OBJECT)
                .where(ESTATE_OBJECT.KIND.eq(kind), ESTATE_OBJECT.NAME_HASH.eq(hash(name)))
                .forUpdate()
                .fetch();
    }

    /** What this transaction has made of it. */
    private Optional<Snapshot> mine() {
        return Optional.ofNullable((Snapshot) TransactionSynchronizationManager.getResource(this));
    }

    private Snapshot read(long version) {
        Snapshot known = cached;
        if (known.version != version) {
            known = new Snapshot(version, read());
            cached = known;
        }
        return known;
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
        writeDifference(before.estate, after);
        followers.forEach(follower -> follower.follow(before.estate, after));
        long version = before.version + 1 + ThreadLocalRandom.current().nextLong(VERSION_STEP);
        db.update(ESTATE_VERSION).set(ESTATE_VERSION.VERSION, version).execute();
        remember(new Snapshot(version, byName(after)));
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

    private Estate read() {
        Map<String, Map<String, String>> kinds = new LinkedHashMap<>();
        db.selectFrom(ESTATE_OBJECT)
                .orderBy(ESTATE_OBJECT.KIND, ESTATE_OBJECT.NAME)
                .forEach(row -> kinds.computeIfAbsent(row.getKind(), k -> new LinkedHashMap<>())
                        .put(row.getName(), row.getBody()));
        return byName(new Estate(
                objects(kinds, "site", Site.class),
                objects(kinds, "server", FileServer.class),
                objects(kinds, "enclosure", Enclosure.class),
                objects(kinds, "drive", Drive.class),
                objects(kinds, "pool", Pool.class),
                objects(kinds, "volume", Volume.class),
                objects(kinds, "share", Share.class),
                objects(kinds, "limit", LimitRule.class),
                objects(kinds, "arrival", Arrival.class),
                objects(kinds, "rebuild", Rebuild.class),
                objects(kinds, "scrub", Scrub.class),
                objects(kinds, "hold", Hold.class)));
    }

    /** In the order that every node and every start gives things in. */
    private static Estate byName(Estate estate) {
        return new Estate(
                new TreeMap<>(estate.sites()),
                new TreeMap<>(estate.servers()),
                new TreeMap<>(estate.enclosures()),
                new TreeMap<>(estate.drives()),
                new TreeMap<>(estate.pools()),
                new TreeMap<>(estate.volumes()),
                new TreeMap<>(estate.shares()),
                new TreeMap<>(estate.limits()),
                new TreeMap<>(estate.arrivals()),
                new TreeMap<>(estate.rebuilds()),
                new TreeMap<>(estate.scrubs()),
                new TreeMap<>(estate.holds()));
    }

    private <T> Map<String, T> objects(Map<String, Map<String, String>> kinds, String kind, Class<T> type) {
        Map<String, T> objects = new LinkedHashMap<>();
        kinds.getOrDefault(kind, Map.of()).forEach((name, body) -> objects.put(name, json.read(body, type)));
        return objects;
    }

    private void writeDifference(Estate before, Estate after) {
        difference("site", before.sites(), after.sites());
        difference("server", before.servers(), after.servers());
        difference("enclosure", before.enclosures(), after.enclosures());
        difference("drive", before.drives(), after.drives());
        difference("pool", before.pools(), after.pools());
        difference("volume", before.volumes(), after.volumes());
        difference("share", before.shares(), after.shares());
        difference("limit", before.limits(), after.limits());
        difference("arrival", before.arrivals(), after.arrivals());
        difference("rebuild", before.rebuilds(), after.rebuilds());
        difference("scrub", before.scrubs(), after.scrubs());
        difference("hold", before.holds(), after.holds());
    }

    private void difference(String kind, Map<String, ?> before, Map<String, ?> after) {
        before.keySet().stream()
                .filter(name -> !after.containsKey(name))
                .forEach(name -> db.deleteFrom(ESTATE_OBJECT)
                        .where(ESTATE_OBJECT.KIND.eq(kind), ESTATE_OBJECT.NAME_HASH.eq(hash(name)))
                        .execute());
        after.forEach((name, thing) -> {
            if (!thing.equals(before.get(name))) {
                String body = json.write(thing);
                db.insertInto(ESTATE_OBJECT)
                        .values(kind, name, body, hash(name))
                        .onDuplicateKeyUpdate()
                        .set(ESTATE_OBJECT.BODY, body)
                        .execute();
            }
        });
    }

    private static byte[] hash(String name) {
        return Digests.sixteen(name.getBytes(StandardCharsets.UTF_8));
    }
}
