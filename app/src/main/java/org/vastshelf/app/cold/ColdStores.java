package org.vastshelf.app.cold;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.StoredJson;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.Kinds;
import software.amazon.awssdk.services.s3.S3Client;

/** The cold stores of the estate, with what signs requests to them and what their last checks said. */
@Service
public class ColdStores {

    private static final String BETWEEN = "\n";
    private static final String SEALED_BY = ":";

    private final EstateStore estates;
    private final ColdKeyStore rows;
    private final Transactions transactions;
    private final StoredJson json;
    private final ShelfClock clock;
    private final Deeds deeds;
    private final String given;
    private final Path file;

    ColdStores(
            EstateStore estates,
            ColdKeyStore rows,
            Transactions transactions,
            StoredJson json,
            ShelfClock clock,
            Deeds deeds,
            Settings settings) {
        this.estates = estates;
        this.rows = rows;
        this.transactions = transactions;
        this.json = json;
        this.clock = clock;
        this.deeds = deeds;
        this.given = settings.key();
        if (!given.isEmpty()) {
            // One that can't be used is said at the start.
            KeyRing.of(given);
        }
        this.file = settings.data().resolve("key");
    }

    /**
     * A check of a store.
     *
     * @param findings by parts, in their order
     */
    public record Checked(String by, Instant at, List<Finding> findings) {

        public boolean isPassed() {
            return findings.stream().allMatch(finding -> finding.outcome() == Finding.Outcome.PASSED);
        }
    }

    /**
     * A store, and how it stands.
     *
     * @param keys when its keys were set, and by whom; empty where there are none
     * @param checked its last check; empty where there was none, or where the store or its keys were changed since
     */
    public record Known(ColdStore store, Optional<KeysSet> keys, Optional<Checked> checked) {

        /** How long the last check waited for a small object; empty where none was read. */
        public Optional<Duration> firstByte() {
            return checked.stream()
                    .flatMap(last -> last.findings().stream())
                    .filter(finding -> finding.look() == Finding.Look.READ)
                    .flatMap(finding -> Stream.ofNullable(finding.millis()))
                    .map(Duration::ofMillis)
                    .findFirst();
        }
    }

    /** When keys were set, and by whom. */
    public record KeysSet(String by, Instant at) {}

    public List<Known> all() {
        Map<String, KeysSet> keys = rows.keySets();
        Map<String, ColdKeyStore.KeptCheck> checks = rows.checks();
        return estates.load().all(Kinds.COLD_STORE).values().stream()
                .map(store -> new Known(
                        store,
                        Optional.ofNullable(keys.get(store.name())),
                        Optional.ofNullable(checks.get(store.name())).map(this::checked)))
                .toList();
    }

    private Checked checked(ColdKeyStore.KeptCheck kept) {
        return new Checked(kept.by(), kept.at(), Arrays.asList(json.read(kept.findings(), Finding[].class)));
    }

    public Known find(String name) {
        return all().stream()
                .filter(known -> known.store().name().equals(name))
                .findFirst()
                .orElseThrow(() -> new NotFound("cold store", name));
    }

    /** Sets what signs requests to a store, in place of what there was; it is not shown again. */
    public void sign(String name, AccessKeys keys, String who) {
        transactions.run(() -> {
            // A store that is being dropped takes its keys along.
            if (estates.held().estate().find(Kinds.COLD_STORE, name).isEmpty()) {
                throw new NotFound("cold store", name);
            }
            keep(name, keys, who);
            deeds.done(who, Deeds.Kind.COLD_STORE, "/lighten/stores/" + name, "its keys were set");
        });
    }

    /** Keeps keys for a store that may come to be in the same transaction. */
    public void keep(String name, AccessKeys keys, String who) {
        rows.keep(name, ring().seal(name, keys.accessKey() + BETWEEN + keys.secretKey()), who, clock.instant());
        rows.forgetCheck(name);
    }

    /**
     * Tries all that will be asked of a store.
     *
     * @throws IllegalArgumentException when it has no keys, or they can't be opened
     */
    public Checked check(String name, String who) {
        ColdStore store = find(name).store();
        KeyRing.Sealed sealed = sealed(name);
        List<Finding> findings;
        try (S3Client s3 = S3Clients.asking(store, opened(name, sealed))) {
            findings = new StoreCheck(s3, store, Clock.systemUTC()).run();
        }
        Checked checked = new Checked(who, clock.instant(), findings);
        transactions.run(() -> {
            // What was checked may have become another store, or another's keys, meanwhile.
            if (!estates.held().estate().find(Kinds.COLD_STORE, name).equals(Optional.of(store))
                    || !rows.isSealed(name, sealed)) {
                return;
            }
            rows.keepCheck(name, new ColdKeyStore.KeptCheck(who, checked.at(), json.write(findings)));
            deeds.done(
                    who,
                    Deeds.Kind.COLD_STORE,
                    "/lighten/stores/" + name,
                    checked.isPassed()
                            ? "it was checked: all is well"
                            : "it was checked: it does not do all that it should");
        });
        return checked;
    }

    private KeyRing.Sealed sealed(String name) {
        return rows.sealed(name)
                .orElseThrow(() -> new IllegalArgumentException("'" + name + "' has no keys yet; set them first"));
    }

    /** A store, and what signs requests to it. */
    record Signed(ColdStore store, AccessKeys keys) {}

    /** @throws IllegalArgumentException when there is no such store, or it has no keys that can be opened */
    Signed signed(String name) {
        ColdStore store = estates.load()
                .find(Kinds.COLD_STORE, name)
                .orElseThrow(() -> new IllegalArgumentException("there is no cold store '" + name + "'"));
        return new Signed(store, opened(name, sealed(name)));
    }

    /** Seals a text that belongs to something. */
    String seal(String place, String text) {
        KeyRing.Sealed sealed = ring().seal(place, text);
        return sealed.with() + SEALED_BY + Base64.getEncoder().encodeToString(sealed.bytes());
    }

    /** @throws IllegalArgumentException when it can't be opened here */
    String open(String place, String sealed) {
        String[] parts = sealed.split(SEALED_BY, 2);
        return ring().open(place, new KeyRing.Sealed(Base64.getDecoder().decode(parts[1]), parts[0]))
                .orElseThrow(() -> new IllegalArgumentException("what belongs to '" + place
                        + "' was sealed with the key " + parts[0] + ", which this installation does not have"));
    }

    private AccessKeys opened(String name, KeyRing.Sealed sealed) {
        String[] parts = ring().open(name, sealed)
                .orElseThrow(() -> new IllegalArgumentException("the keys of '" + name
                        + "' were sealed with a key that this installation does not have; set them again"))
                .split(BETWEEN);
        return new AccessKeys(parts[0], parts[1]);
    }

    private KeyRing ring() {
        if (!given.isEmpty()) {
            return KeyRing.of(given);
        }
        try {
            return KeyRing.in(file);
        } catch (IOException unreadable) {
            throw new UncheckedIOException("the key that seals could not be read from " + file, unreadable);
        }
    }

    /** Seals with the newest key what an older one sealed. */
    @Scheduled(initialDelay = 5_000, fixedDelay = 60_000)
    void renew() {
        KeyRing ring = ring();
        for (String name : rows.sealedOtherwise(ring.newest())) {
            rows.sealed(name)
                    .ifPresent(before -> ring.open(name, before)
                            .ifPresent(text -> rows.reseal(name, before, ring.seal(name, text))));
        }
    }
}
