package org.vastshelf.core.look;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.ledger.SavingsFall;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.look.Attention.Area;
import org.vastshelf.core.look.Attention.Subject;
import org.vastshelf.core.look.Attention.Urgency;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** Finds what needs an administrator today, most urgent first. */
public final class AttentionRules {

    private static final int ACT_DAYS = 60;
    private static final int WATCH_DAYS = 180;

    private AttentionRules() {}

    /**
     * Looks the estate through.
     *
     * @param forecasts by volume name
     * @param accounts limit accounts that are near or over a level
     * @param units in which sentences give sizes
     */
    public static List<Attention> find(
            Estate estate,
            Usage usage,
            Map<String, FillForecast> forecasts,
            List<Account> accounts,
            LocalDate today,
            UnitSystem units) {
        List<Attention> found = new ArrayList<>();
        estate.drives().values().forEach(d -> ailing(estate, d).ifPresent(found::add));
        estate.volumes().values().forEach(v -> {
            filling(v, usage, forecasts.get(v.name()), today, units).ifPresent(found::add);
            alarm(v, usage).ifPresent(found::add);
        });
        estate.pools().values().forEach(p -> {
            overCommitted(estate, usage, p, units).ifPresent(found::add);
            livesOnSavings(estate, usage, p, units).ifPresent(found::add);
            standing(estate, p).ifPresent(found::add);
        });
        estate.servers().values().stream().filter(FileServer::dark).forEach(s -> found.add(dark(s)));
        estate.shares().values().forEach(s -> unreachable(estate, s).ifPresent(found::add));
        accounts.forEach(a -> full(a, units).ifPresent(found::add));
        return found.stream().sorted().toList();
    }

    private static Optional<Attention> ailing(Estate estate, Drive drive) {
        // One that has failed is told of by its pool.
        return drive.health()
                .ailment()
                .filter(why -> drive.state() != DriveState.FAILED)
                .map(why -> {
                    Optional<Pool> pool = estate.poolOf(drive);
                    boolean spare = estate.drives().values().stream()
                            .anyMatch(d -> d.server().equals(drive.server())
                                    && d.state() == DriveState.SPARE
                                    && d.kind() == drive.kind()
                                    && d.label().compareTo(drive.label()) >= 0);
                    return new Attention(
                            Urgency.ACT,
                            new Subject(Area.DRIVE, drive.key()),
                            "Drive " + drive.key(),
                            "ails: " + why
                                    + pool.map(p -> "; in pool " + p.name()).orElse("; in no pool"),
                            Optional.empty(),
                            spare ? "a spare waits" : "no spare of its size",
                            "see its bay");
                });
    }

    private static Optional<Attention> filling(
            Volume volume, Usage usage, FillForecast forecast, LocalDate today, UnitSystem units) {
        if (forecast == null || forecast.likely().isEmpty()) {
            return Optional.empty();
        }
        LocalDate likely = forecast.likely().get();
        long days = ChronoUnit.DAYS.between(today, likely);
        if (days > WATCH_DAYS) {
            return Optional.empty();
        }
        Bytes left = volume.size().minusOrZero(usage.of(volume.name()).used());
        String when = forecast.early().map(LocalDate::toString).orElse("?") + " to "
                + forecast.late().map(LocalDate::toString).orElse("later");
        return Optional.of(new Attention(
                days <= ACT_DAYS ? Urgency.ACT : Urgency.WATCH,
                new Subject(Area.VOLUME, volume.name()),
                "Volume " + volume.name(),
                (days > 0 ? "is full in " + Counted.of(days, "day") : "is as good as full") + "; " + units.format(left)
                        + " are left",
                Optional.of(likely),
                when,
                "see the forecast"));
    }

    private static Optional<Attention> alarm(Volume volume, Usage usage) {
        Bytes used = usage.of(volume.name()).used();
        double share = used.shareOf(volume.size()) * 100;
        if (share < volume.alarmPercent()) {
            return Optional.empty();
        }
        return Optional.of(new Attention(
                Urgency.WATCH,
                new Subject(Area.VOLUME, volume.name()),
                "Volume " + volume.name(),
                String.format(Locale.ROOT, "is %.1f %% used, its alarm level is %d %%", share, volume.alarmPercent()),
                Optional.empty(),
                "now",
                "see its bytes"));
    }

    private static Optional<Attention> overCommitted(Estate estate, Usage usage, Pool pool, UnitSystem units) {
        ByteLedger ledger = Ledgers.ofPool(estate, usage, pool);
        if (ledger.beyond().isZero()) {
            return Optional.empty();
        }
        Bytes usable = Ledgers.usable(estate, pool);
        double times = usable.plus(ledger.beyond()).shareOf(usable);
        return Optional.of(new Attention(
                Urgency.WATCH,
                new Subject(Area.POOL, pool.name()),
                "Pool " + pool.name(),
                String.format(
                        Locale.ROOT,
                        "promises %.2f × what it has, %s beyond its end",
                        times,
                        units.format(ledger.beyond())),
                Optional.empty(),
                units.format(ledger.free()) + " left",
                "see its ledger"));
    }

    private static Optional<Attention> livesOnSavings(Estate estate, Usage usage, Pool pool, UnitSystem units) {
        return SavingsFall.of(estate, usage, pool)
                .filter(fall -> !fall.without().lacking().isZero())
                .map(fall -> new Attention(
                        Urgency.WATCH,
                        new Subject(Area.POOL, pool.name()),
                        "Pool " + pool.name(),
                        "has room only as long as " + fall.least() + " % of the " + units.format(fall.saved())
                                + " that are saved on it stay saved; without, "
                                + units.format(fall.without().lacking()) + " would find no room",
                        Optional.empty(),
                        units.format(fall.steps().getFirst().free()) + " left",
                        "see its ledger"));
    }

    private static Optional<Attention> standing(Estate estate, Pool pool) {
        PoolState state = PoolState.of(estate, pool);
        int further = state.groups().stream()
                .mapToInt(PoolState.GroupState::further)
                .min()
                .orElse(0);
        return switch (state.standing()) {
            case WHOLE -> Optional.empty();
            case LOST ->
                Optional.of(ofPool(
                        Urgency.ACT,
                        pool,
                        "has lost data; nothing on it is served",
                        "now",
                        "dissolve it, bring back copies"));
            case DEGRADED ->
                Optional.of(ofPool(
                        Urgency.ACT,
                        pool,
                        "is degraded without a spare that fits; can lose " + further + " more for certain",
                        "now",
                        "bring a drive"));
            case REBUILDING ->
                Optional.of(ofPool(
                        Urgency.WATCH,
                        pool,
                        "rebuilds; can lose " + further + " more for certain meanwhile",
                        "until it is done",
                        "see its progress"));
        };
    }

    private static Attention ofPool(Urgency urgency, Pool pool, String why, String when, String remedy) {
        return new Attention(
                urgency,
                new Subject(Area.POOL, pool.name()),
                "Pool " + pool.name(),
                why,
                Optional.empty(),
                when,
                remedy);
    }

    private static Attention dark(FileServer server) {
        return new Attention(
                Urgency.ACT,
                new Subject(Area.DRIVE, server.name()),
                "File server " + server.name(),
                "is without power; nothing on it is served",
                Optional.empty(),
                "now",
                "see its bays");
    }

    private static Optional<Attention> unreachable(Estate estate, Share share) {
        Optional<FileServer> server = estate.serverOf(share);
        boolean noAddress = server.filter(FileServer::isReachable).isEmpty();
        boolean noExport = share.nfs() && !share.smb() && share.exports().isEmpty();
        if (!noAddress && !noExport) {
            return Optional.empty();
        }
        return Optional.of(new Attention(
                Urgency.ACT,
                new Subject(Area.SHARE, share.name()),
                "Share " + share.name(),
                noAddress
                        ? "its file server has no data address; no client reaches it"
                        : "has no export rule; no client host reaches it",
                Optional.empty(),
                "now",
                "set who may mount it"));
    }

    private static Optional<Attention> full(Account account, UnitSystem units) {
        Optional<Bytes> stop = account.rule().stopAt();
        if (stop.isEmpty() || account.used().shareOf(stop.get()) < 0.995) {
            return Optional.empty();
        }
        return Optional.of(new Attention(
                Urgency.WATCH,
                new Subject(Area.ACCOUNT, account.rule().key()),
                account.title(),
                "holds " + units.format(account.used()) + " of " + units.format(stop.get()) + ", saves are refused",
                Optional.empty(),
                "now",
                "see its limit"));
    }
}
