package org.vastshelf.app.api;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.hardware.HardwareService;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.limit.AccountPageStore;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.app.trace.AuditStore;
import org.vastshelf.app.trace.AuditVerification;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** The estate as it is. Lists are paged by the name after which to go on. */
@RestController
class EstateApi {

    private static final long NEWEST = Long.MAX_VALUE;

    private final EstateStore estates;
    private final UsageStore usage;
    private final AuditStore audit;
    private final AuditVerification verification;
    private final AccountPageStore accounts;
    private final Forecasts forecasts;
    private final NoticeStore notices;
    private final HardwareService hardware;

    EstateApi(
            EstateStore estates,
            UsageStore usage,
            AuditStore audit,
            AuditVerification verification,
            AccountPageStore accounts,
            Forecasts forecasts,
            NoticeStore notices,
            HardwareService hardware) {
        this.hardware = hardware;
        this.verification = verification;
        this.accounts = accounts;
        this.estates = estates;
        this.usage = usage;
        this.audit = audit;
        this.forecasts = forecasts;
        this.notices = notices;
    }

    record PoolView(Pool pool, Bytes usableBytes, ByteLedger ledger) {}

    record VolumeView(
            Volume volume,
            Bytes liveBytes,
            Bytes snapshotBytes,
            Usage.Borrowed borrowed,
            Usage.Common common,
            @Nullable FillView fill) {}

    record FillView(
            @Nullable String early,
            @Nullable String likely,
            @Nullable String late) {}

    @GetMapping("/api/v1/drives")
    Cursors.Page<Drive> drives(
            @RequestParam(defaultValue = "") String after, @RequestParam(defaultValue = "100") int limit) {
        return Cursors.page(hardware.seenNow().drives(), after, limit, Drive::asSeen);
    }

    @GetMapping("/api/v1/pools")
    Cursors.Page<PoolView> pools(
            @RequestParam(defaultValue = "") String after, @RequestParam(defaultValue = "100") int limit) {
        Estate estate = estates.load();
        Usage held = usage.load();
        return Cursors.page(
                estate.pools(),
                after,
                limit,
                pool -> new PoolView(pool, Ledgers.usable(estate, pool), Ledgers.ofPool(estate, held, pool)));
    }

    @GetMapping("/api/v1/volumes")
    Cursors.Page<VolumeView> volumes(
            @RequestParam(defaultValue = "") String after, @RequestParam(defaultValue = "100") int limit) {
        Usage held = usage.load();
        var spaces = forecasts.volumes();
        return Cursors.page(estates.load().volumes(), after, limit, volume -> {
            Usage.Held holds = held.of(volume.name());
            FillView fill = Optional.ofNullable(spaces.get(volume.name()))
                    .map(Forecasts.Space::forecast)
                    .map(EstateApi::fill)
                    .orElse(null);
            return new VolumeView(volume, holds.live(), holds.snapshots(), holds.borrowed(), holds.common(), fill);
        });
    }

    private static FillView fill(FillForecast forecast) {
        return new FillView(
                forecast.early().map(Object::toString).orElse(null),
                forecast.likely().map(Object::toString).orElse(null),
                forecast.late().map(Object::toString).orElse(null));
    }

    @GetMapping("/api/v1/shares")
    Cursors.Page<Share> shares(
            @RequestParam(defaultValue = "") String after, @RequestParam(defaultValue = "100") int limit) {
        return Cursors.page(estates.load().shares(), after, limit, share -> share);
    }

    @GetMapping("/api/v1/limits")
    Cursors.Page<LimitRule> limits(
            @RequestParam(defaultValue = "") String after, @RequestParam(defaultValue = "100") int limit) {
        return Cursors.page(estates.load().limits(), after, limit, rule -> rule);
    }

    @GetMapping("/api/v1/notices")
    Cursors.Page<NoticeStore.Notice> notices(
            @RequestParam(defaultValue = "" + NEWEST) long before, @RequestParam(defaultValue = "100") int limit) {
        return Cursors.page(
                notices.page(before, Cursors.requireLimit(limit) + 1), limit, notice -> String.valueOf(notice.id()));
    }

    /** Accounts, the fullest first, whatever their names. */
    @GetMapping("/api/v1/accounts")
    AccountList accounts(
            @RequestParam(defaultValue = "") String rule,
            @RequestParam(defaultValue = "") String search,
            @RequestParam(defaultValue = "0") int from,
            @RequestParam(defaultValue = "100") int limit) {
        if (from < 0) {
            throw new IllegalArgumentException("from is " + from + ", must be at least 0");
        }
        Estate estate = estates.load();
        AccountPageStore.Page page = accounts.page(
                estate,
                List.copyOf(estate.limits().values()),
                new AccountPageStore.Wanted(search, rule),
                from,
                Cursors.requireLimit(limit));
        return new AccountList(
                page.count(),
                page.accounts().stream()
                        .map(a -> new AccountItem(a.rule().key(), a.holder(), a.used(), a.most()))
                        .toList());
    }

    /** @param most what it may hold by its strictest level; empty when it only tracks */
    record AccountItem(String rule, String holder, Bytes used, Optional<Bytes> most) {}

    record AccountList(int count, List<AccountItem> items) {}

    /** The audit line that an operation's receipt stands for. */
    @GetMapping("/api/v1/audit-lines/receipts/{receipt}")
    AuditLine auditLine(@PathVariable long receipt) {
        return audit.find(receipt).orElseThrow(() -> new NotFound("audit line with the receipt", "" + receipt));
    }

    /**
     * Checks the whole chain of audit lines, and names the first that is not as it was written.
     *
     * @param noted an end noted at an earlier time, as {@code number:hash}
     */
    @GetMapping("/api/v1/audit-lines/verification")
    AuditVerification.Report verification(@RequestParam(defaultValue = "") String noted) {
        return verification.verify(AuditVerification.noted(noted));
    }

    @GetMapping("/api/v1/audit-lines")
    Cursors.Page<AuditLine> auditLines(
            @RequestParam(defaultValue = "") String person,
            @RequestParam(defaultValue = "") String share,
            @RequestParam(defaultValue = "") String operation,
            @RequestParam(defaultValue = "") String verdict,
            @RequestParam(defaultValue = "" + NEWEST) long before,
            @RequestParam(defaultValue = "100") int limit) {
        List<AuditLine> lines = audit.page(
                new AuditStore.Filter(person, share, operation, verdict), before, Cursors.requireLimit(limit) + 1);
        return Cursors.page(lines, limit, line -> String.valueOf(line.number()));
    }
}
