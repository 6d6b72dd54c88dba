package org.vastshelf.app.saving;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.ScanState;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.folder.HostTree;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.saving.SavingRun.State;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.unit.ShortText;

/**
 * Measures in the background what keeping equal chunks once would spare, one node at each measurement. How far it has
 * come is kept beside the database, so that what was stopped, or whose node is gone, goes on from there.
 */
@Service
public class SavingService {

    private static final Logger LOG = LoggerFactory.getLogger(SavingService.class);
    private static final Duration LEASE = Duration.ofSeconds(30);
    private static final int MOST_LISTED = 50;
    private static final int LONGEST_PROBLEM = 1_000;
    /** Writing down how far it is takes a twentieth of the time at most. */
    private static final int WRITING = 20;

    private final SavingStore store;
    private final FoundStore found;
    private final Transactions transactions;
    private final CatalogueStore catalogues;
    private final FileBytes bytes;
    private final LeaseStore leases;
    private final ShelfClock clock;
    private final Deeds deeds;
    private final Path folder;
    private final Set<Long> running = ConcurrentHashMap.newKeySet();

    SavingService(
            SavingStore store,
            FoundStore found,
            Transactions transactions,
            CatalogueStore catalogues,
            FileBytes bytes,
            LeaseStore leases,
            ShelfClock clock,
            Deeds deeds,
            Settings settings) {
        this.deeds = deeds;
        this.store = store;
        this.found = found;
        this.transactions = transactions;
        this.catalogues = catalogues;
        this.bytes = bytes;
        this.leases = leases;
        this.clock = clock;
        this.folder = settings.data().resolve("savings");
    }

    /** Begins what waits, and takes over what a node that is gone was at; whoever measures takes the lease again itself, each second. */
    @Scheduled(fixedDelay = 3_000)
    void watch() {
        store.running().stream().filter(run -> !running.contains(run.id())).forEach(this::begin);
    }

    private static String lease(long id) {
        return "saving " + id;
    }

    /**
     * Begins a measurement.
     *
     * @throws IllegalArgumentException when the catalogue has no bytes behind it, or is being read itself
     */
    public long begin(String name, SavingRun.Wanted wanted, String who) {
        Catalogue catalogue = catalogue(name);
        if (catalogue.source() == Source.TABLE) {
            throw new IllegalArgumentException("'" + name + "' was made of a table: there are no files to be read");
        }
        if (catalogue.state() == ScanState.READING) {
            throw new IllegalArgumentException("'" + name + "' is being read; wait until its files are known");
        }
        long id = store.add(catalogue.no(), wanted, who, clock.instant());
        deeds.done(
                who,
                Deeds.Kind.MEASURE,
                "/lighten/catalogues/" + name,
                "measurement " + id + " of what could be spared begun");
        begin(store.find(catalogue.no(), id).orElseThrow());
        return id;
    }

    public SavingRun find(String name, long id) {
        return store.find(catalogue(name).no(), id)
                .orElseThrow(() -> new NotFound("measurement of " + name, String.valueOf(id)));
    }

    /** Where a measurement found what it found; nothing before it has ended. */
    public Found found(SavingRun run) {
        return found.of(run.id());
    }

    public List<SavingRun> of(String name) {
        return store.of(catalogue(name).no(), MOST_LISTED);
    }

    /** The last measurement of each catalogue that has come to its end, by the catalogue's number. */
    public Map<Integer, SavingRun> latest() {
        return store.latest();
    }

    /** The last measurement of a share or folder that has come to its end. */
    public Optional<SavingRun> latestOf(String name) {
        return catalogues.find(name).flatMap(catalogue -> Optional.ofNullable(latest().get(catalogue.no())));
    }

    /** Whichever node is at it sees it within a second or a file. */
    public void stop(String name, long id, String who) {
        SavingRun run = find(name, id);
        if (store.change(
                run.id(), List.of(State.RUNNING), State.STOPPED, "somebody stopped it", Optional.of(clock.instant()))) {
            deeds.done(who, Deeds.Kind.MEASURE, "/lighten/catalogues/" + name, "measurement " + id + " stopped");
        }
    }

    public void goOn(String name, long id, String who) {
        SavingRun run = find(name, id);
        if (!store.change(
                run.id(), List.of(State.STOPPED, State.FAILED, State.RUNNING), State.RUNNING, "", Optional.empty())) {
            throw new IllegalArgumentException("measurement " + id + " is done; begin another");
        }
        deeds.done(who, Deeds.Kind.MEASURE, "/lighten/catalogues/" + name, "measurement " + id + " goes on");
        begin(find(name, id));
    }

    private Catalogue catalogue(String name) {
        return catalogues.find(name).orElseThrow(() -> new NotFound("catalogue", name));
    }

    /** One at a time on each node, since each may need a third of its memory; others wait until it is their turn. */
    private synchronized void begin(SavingRun run) {
        if (running.isEmpty() && leases.take(lease(run.id()), LEASE) && running.add(run.id())) {
            // A thread of the system's: it computes all the time.
            Thread.ofPlatform().name("saving " + run.id()).daemon().start(() -> measure(run));
        }
    }

    private void measure(SavingRun run) {
        try {
            Optional<Catalogue> catalogue = catalogues.all().stream()
                    .filter(c -> c.no() == run.catalogue())
                    .findFirst();
            if (catalogue.isPresent()) {
                measure(run, catalogue.get());
            }
        } catch (IOException | RuntimeException unforeseen) {
            LOG.error("measurement {} failed", run.id(), unforeseen);
            if (leases.take(lease(run.id()), LEASE)) {
                end(run, State.FAILED, ShortText.of(String.valueOf(unforeseen.getMessage()), LONGEST_PROBLEM));
            }
        } finally {
            running.remove(run.id());
            leases.giveBack(lease(run.id()));
            watch();
        }
    }

    private void measure(SavingRun run, Catalogue catalogue) throws IOException {
        Path kept = folder.resolve(run.id() + ".packed");
        Resting from = begun(run, kept);

        try (HostTree tree = new HostTree(catalogue.source() == Source.FOLDER ? catalogue.root() : "/")) {
            Measuring.Opening opening = catalogue.source() == Source.FOLDER
                    ? file -> tree.open(file.folderPath(), file.name())
                    : file -> Optional.of(
                            bytes.open(file.contents(), 0, file.contents().length()));
            Measuring measuring = new Measuring(
                    run.wanted(),
                    run.begunAt(),
                    from,
                    (at, name, most) -> store.behind(catalogue.no(), at, name, most),
                    opening,
                    () -> !mayGoOn(run.id()));
            Rests rests = new Rests(kept);
            Measuring.End end = measuring.run(resting -> {
                store.progress(run.id(), resting.chunks().savings(), resting.unreadable());
                rests.offer(resting);
            });
            if (!leases.take(lease(run.id()), LEASE)) {
                LOG.info("another node goes on with measurement {}", run.id());
                return;
            }
            if (end == Measuring.End.BETWEEN_FILES) {
                measuring.resting().write(kept);
            }
            // Also what was read of a file in whose middle it ended: figures agree with each other until it goes on.
            Resting last = measuring.resting();
            transactions.run(() -> {
                store.progress(run.id(), last.chunks().savings(), last.unreadable());
                found.put(run.id(), catalogue.no(), last.chunks());
            });
            // Where somebody stopped it, it is stopped already, or somebody lets it go on again since.
            if (end == Measuring.End.ALL) {
                end(run, State.DONE, "");
            } else if (measuring.isTimeUp()) {
                end(run, State.STOPPED, "its time is up");
            }

            if (end == Measuring.End.ALL
                    || store.find(run.catalogue(), run.id()).isEmpty()) {
                Files.deleteIfExists(kept);
            }
        }
    }

    /** Nobody has stopped it, and no other node has taken it over, which one that stood still for a minute may find. */
    private boolean mayGoOn(long id) {
        return leases.take(lease(id), LEASE) && store.isRunning(id);
    }

    /** How far it had come when that was written down last. */
    private static Resting begun(SavingRun run, Path kept) throws IOException {
        return Files.exists(kept)
                ? Resting.read(kept, run.wanted().depth())
                : Resting.begun(run.wanted().depth());
    }

    private void end(SavingRun run, State state, String problem) {
        store.change(run.id(), List.of(State.RUNNING), state, problem, Optional.of(clock.instant()));
    }

    /** Writes down how far a measurement is, not so often that it costs much. */
    private static final class Rests {

        private final Path file;
        private long next = System.nanoTime() + Duration.ofSeconds(10).toNanos();

        Rests(Path file) {
            this.file = file;
        }

        void offer(Resting resting) {
            long begun = System.nanoTime();
            if (begun < next) {
                return;
            }
            try {
                resting.write(file);
            } catch (IOException full) {
                throw new UncheckedIOException("how far it is could not be written down", full);
            }
            next = System.nanoTime()
                    + WRITING
                            * Math.max(
                                    System.nanoTime() - begun,
                                    Duration.ofSeconds(1).toNanos());
        }
    }
}
