package org.vastshelf.app.desk;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.FileWrites;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.notify.Notices;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.app.trace.AuditStore;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.ClientSpace;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.Gate;
import org.vastshelf.core.gate.GateView;
import org.vastshelf.core.gate.Verdict;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** The one road for file operations: look, ask the gate, apply, write the audit line, in one transaction. */
@Service
public class DeskService {

    private final EstateStore estates;
    private final UsageStore usage;
    private final CatalogueStore catalogues;
    private final FileWrites files;
    private final AccountStore accounts;
    private final AuditStore audit;
    private final Directory directory;
    private final Notices notices;
    private final ShelfClock clock;

    DeskService(
            EstateStore estates,
            UsageStore usage,
            CatalogueStore catalogues,
            FileWrites files,
            AccountStore accounts,
            AuditStore audit,
            Directory directory,
            Notices notices,
            ShelfClock clock) {
        this.estates = estates;
        this.usage = usage;
        this.catalogues = catalogues;
        this.files = files;
        this.accounts = accounts;
        this.audit = audit;
        this.directory = directory;
        this.notices = notices;
        this.clock = clock;
    }

    /** What the operation named is not there. */
    public static final class NotThere extends RuntimeException {
        NotThere(String message) {
            super(message);
        }
    }

    /**
     * The verdict, and how much room the client sees after it.
     *
     * @param bytes length of the file before the operation, 0 where there was none
     */
    public record Result(FileOperation operation, Verdict verdict, ClientSpace space, long auditLine, long bytes) {}

    @Transactional
    public Result perform(FileOperation operation) {
        return perform(operation, clock.instant());
    }

    /** Performs an operation that a client asked for at a given time, which a jump of the clock may have passed. */
    @Transactional
    public Result perform(FileOperation operation, Instant now) {
        Estate estate = estates.load();
        Share share = share(estate, operation.share());
        Volume volume = estate.volumes().get(share.volume());
        usage.lock(estate.volumesOn(volume.pool()).map(Volume::name).sorted().toList());
        Catalogue catalogue = catalogue(share);
        GateView view = view(estate, share, operation, catalogue);
        requireFile(operation, view);
        Verdict verdict = Gate.decide(operation, view, now);
        if (verdict.allowed()) {
            apply(operation, view, volume, catalogue, now);
        }
        long line = audit.append(new AuditStore.Entry(
                        now,
                        operation.person(),
                        operation.client().address(),
                        share.name(),
                        operation.kind().name(),
                        operation.path().text(),
                        operation.bytes().value(),
                        verdict.allowed(),
                        verdict.reason()))
                .number();
        return new Result(
                operation,
                verdict,
                ClientSpace.of(view(estate, share, operation, catalogue)),
                line,
                view.present().map(p -> p.bytes().value()).orElse(0L));
    }

    private static void requireFile(FileOperation operation, GateView view) {
        boolean needsFile = operation.kind() == Kind.READ || operation.kind() == Kind.DELETE;
        if (needsFile && view.present().isEmpty()) {
            throw new NotThere("There is no file '" + operation.path() + "' on share " + operation.share());
        }
    }

    /** What a person's client sees of the space at a folder of a share. */
    public ClientSpace space(String shareName, String uid, FilePath folder) {
        Estate estate = estates.load();
        Share share = share(estate, shareName);
        FileOperation probe = new FileOperation(
                Kind.READ, uid, shareName, folder.child("probe"), Bytes.ZERO, DeskClients.of(share, uid));
        return ClientSpace.of(view(estate, share, probe, catalogue(share)));
    }

    private void apply(FileOperation operation, GateView view, Volume volume, Catalogue catalogue, Instant now) {
        Bytes before = view.present().map(GateView.Present::allocated).orElse(Bytes.ZERO);
        switch (operation.kind()) {
            case WRITE -> {
                FileRow row = row(operation, view.person(), volume, now);
                files.put(catalogue.no(), operation.path(), row);
                usage.addLive(volume.name(), row.allocated() - before.value());
            }
            case DELETE -> {
                files.delete(catalogue.no(), operation.path());
                usage.addLive(volume.name(), -before.value());
            }
            case LIST, READ -> {
                return;
            }
        }
        for (Account account : view.accounts()) {
            long used = files.held(catalogue.no(), List.of(account.folder())).getFirst();
            AccountState.Next next = account.state().after(account.rule(), Bytes.of(used), now);
            accounts.keep(account, next.state());
            next.crossings().forEach(crossing -> tell(operation, account, crossing, Bytes.of(used), now));
        }
    }

    /** Tells who caused a crossing; one upward also those who look after the estate. */
    private void tell(
            FileOperation operation, Account account, AccountState.Crossing crossing, Bytes used, Instant now) {
        String subject = "%s of %s %s was %s"
                .formatted(
                        crossing.stance().title(),
                        operation.share(),
                        account.folder(),
                        crossing.rising() ? "passed" : "left behind");
        String body = "It holds %s; the level is %s. %s"
                .formatted(
                        UnitSystem.BINARY.format(used),
                        UnitSystem.BINARY.format(crossing.level()),
                        crossing.rising() ? crossing.stance().meaning() : "");
        notices.tell(operation.person(), now, subject, body.strip());
        if (crossing.rising()) {
            notices.tellAdministrators(now, subject, body.strip());
        }
    }

    private static FileRow row(FileOperation operation, Person person, Volume volume, Instant now) {
        String name = operation.path().name();
        long seconds = now.getEpochSecond();
        return new FileRow(
                PathBytes.of(name),
                operation.bytes().value(),
                volume.allocated(operation.bytes()).value(),
                person.uid(),
                person.groups().stream().sorted().findFirst().orElse(""),
                seconds,
                seconds,
                seconds,
                FileKind.of(name));
    }

    private GateView view(Estate estate, Share share, FileOperation operation, Catalogue catalogue) {
        Volume volume = estate.volumes().get(share.volume());
        Pool pool = estate.pools().get(volume.pool());
        Usage held = usage.load();
        Person person = directory
                .person(operation.person())
                .orElseThrow(() -> new NotThere("There is nobody '" + operation.person() + "' in the directory"));
        Optional<GateView.Present> present = catalogues
                .folder(catalogue.no(), PathBytes.of(operation.path().parent().text()))
                .flatMap(f -> catalogues.file(
                        catalogue.no(), f.no(), PathBytes.of(operation.path().name())))
                .map(f -> new GateView.Present(Bytes.of(f.bytes()), Bytes.of(f.allocated())));
        return new GateView(
                share,
                estate.servers().get(pool.server()),
                volume,
                volume.size().minusOrZero(held.of(volume.name()).used()),
                Ledgers.freeFor(estate, held, volume),
                pool.isLost(),
                person,
                present,
                accounts.touchedBy(estate, share.name(), catalogue.no(), operation.path()));
    }

    private static Share share(Estate estate, String name) {
        return Optional.ofNullable(estate.shares().get(name))
                .orElseThrow(() -> new NotThere("There is no share '" + name + "'"));
    }

    /** The catalogue of a share; a new share's begins empty. */
    private Catalogue catalogue(Share share) {
        return catalogues.find(share.name()).orElseGet(() -> catalogues.create(share.name(), Source.SHARE, "/"));
    }
}
