package org.vastshelf.app.api;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.core.replica.ReplicaPlan;
import org.vastshelf.core.snapshot.HeldBytes;
import org.vastshelf.core.snapshot.KeepRule;
import org.vastshelf.core.snapshot.Version;
import org.vastshelf.core.time.Schedule;

/** What snapshots hold, what a schedule keeps and what a replica pair would be like: from what is asked alone. */
@RestController
class ProtectQuestionsApi {

    private static final int MOST_RUNS = 100_000;
    private static final int MOST_VERSIONS = 1_000_000;

    record Lived(String born, @Nullable String died, Long bytes) {}

    record HoldRequest(
            List<Lived> versions,
            List<String> snapshots,
            @Nullable List<Integer> delete) {}

    record Hold(long heldBytes, List<Long> heldAloneBytes, long freedBytes) {}

    /** Bytes of dead versions that snapshots hold, and what deleting some of them frees. */
    @PostMapping("/api/v1/snapshots/hold")
    Hold hold(@RequestBody HoldRequest request) {
        List<Instant> snapshots = ascending(request.snapshots);
        atMost("versions", request.versions, MOST_VERSIONS);
        List<HeldBytes.Cell> cells = new ArrayList<>();
        for (int i = 0; i < request.versions.size(); i++) {
            version(request.versions.get(i), "versions[" + i + "].")
                    .cell(snapshots)
                    .ifPresent(cells::add);
        }
        HeldBytes held = HeldBytes.of(snapshots.size(), cells);
        return new Hold(
                held.held(),
                IntStream.range(0, snapshots.size()).mapToObj(held::heldAlone).toList(),
                held.freedBy(deleted(request.delete, snapshots.size())));
    }

    private static List<Instant> ascending(List<String> texts) {
        atMost("snapshots", texts, HeldBytes.MOST_SNAPSHOTS);
        List<Instant> moments = new ArrayList<>();
        for (int i = 0; i < texts.size(); i++) {
            Instant at = instant("snapshots[" + i + "]", texts.get(i));
            if (i > 0 && !at.isAfter(moments.getLast())) {
                throw new IllegalArgumentException("snapshots[" + i + "] is " + at
                        + ", must be after the one before, which is " + moments.getLast());
            }
            moments.add(at);
        }
        return moments;
    }

    private static void atMost(String name, Collection<?> list, int most) {
        if (list.size() > most) {
            throw new IllegalArgumentException(name + " has " + list.size() + " entries, must have at most " + most);
        }
    }

    private static Version version(Lived lived, String place) {
        Instant born = instant(place + "born", lived.born);
        @Nullable Instant died = lived.died == null ? null : instant(place + "died", lived.died);
        try {
            return new Version(born, Optional.ofNullable(died), lived.bytes);
        } catch (IllegalArgumentException wrong) {
            throw new IllegalArgumentException(place + wrong.getMessage(), wrong);
        }
    }

    private static BitSet deleted(@Nullable List<Integer> positions, int snapshots) {
        BitSet deleted = new BitSet();
        for (int i = 0; positions != null && i < positions.size(); i++) {
            int position = positions.get(i);
            if (position < 0 || position >= snapshots) {
                throw new IllegalArgumentException("delete[" + i + "] is " + position + ", must be "
                        + (snapshots == 0 ? "left out, since there are no snapshots" : "0 to " + (snapshots - 1)));
            }
            deleted.set(position);
        }
        return deleted;
    }

    private static Instant instant(String name, String text) {
        try {
            return Instant.parse(text);
        } catch (DateTimeParseException none) {
            throw new IllegalArgumentException(
                    name + " is '" + text + "', must be a moment such as 2026-03-02T08:00:00Z", none);
        }
    }

    record Keep(
            @Nullable Integer newest,
            @Nullable Integer hourly,
            @Nullable Integer daily,
            @Nullable Integer weekly,
            @Nullable Integer monthly,
            @Nullable Integer yearly) {

        KeepRule rule() {
            return new KeepRule(or0(newest), or0(hourly), or0(daily), or0(weekly), or0(monthly), or0(yearly));
        }

        private static int or0(@Nullable Integer figure) {
            return figure == null ? 0 : figure;
        }
    }

    record PreviewRequest(String rule, String zone, String from, String until, Keep keep) {}

    record Preview(List<Instant> runs, Collection<Instant> kept) {}

    /** The runs of a schedule, and what is there right after the last of them. */
    @PostMapping("/api/v1/schedules/preview")
    Preview preview(@RequestBody PreviewRequest request) {
        ZoneId zone = zone(request.zone);
        Instant from = instant("from", request.from);
        Instant until = instant("until", request.until);
        if (until.isBefore(from)) {
            throw new IllegalArgumentException("until is " + until + ", must not be before from, which is " + from);
        }
        KeepRule keep = request.keep.rule();
        List<Instant> runs = new Schedule(LocalDateTime.ofInstant(from, zone), request.rule)
                .all(from.minusNanos(1), until, zone, MOST_RUNS);
        return new Preview(runs, keep.kept(runs, zone));
    }

    private static ZoneId zone(String name) {
        try {
            return ZoneId.of(name);
        } catch (DateTimeException unknown) {
            throw new IllegalArgumentException(
                    "zone is '" + name + "', must be a time zone such as Europe/London", unknown);
        }
    }

    record PlanRequest(
            Long bytes,
            Long dailyChangeBytes,
            Double linkMibps,
            Double roundTripMillis,
            ReplicaPlan.Mode mode,
            @Nullable Double intervalMinutes) {}

    record Plan(
            boolean possible,
            @Nullable String reason,
            double seedingHours,
            @Nullable Double addedMillisPerWrite64KiB,
            @Nullable Double greatestLossMinutes,
            @Nullable Long steadyLagBytes) {}

    /** What a replica pair over a link would be like. */
    @PostMapping("/api/v1/replicas/plan")
    Plan plan(@RequestBody PlanRequest request) {
        atLeastZero("bytes", request.bytes);
        atLeastZero("dailyChangeBytes", request.dailyChangeBytes);
        ReplicaPlan.Link link = new ReplicaPlan.Link(request.linkMibps, request.roundTripMillis);
        ReplicaPlan plan = switch (request.mode) {
            case IN_STEP -> ReplicaPlan.inStep(request.bytes, request.dailyChangeBytes, link);
            case BY_INTERVAL ->
                ReplicaPlan.byInterval(
                        request.bytes, request.dailyChangeBytes, link, interval(request.intervalMinutes));
        };
        return new Plan(
                plan.possible(),
                plan.reason().orElse(null),
                plan.seedingHours(),
                orNull(plan.addedMillis()),
                orNull(plan.greatestLossMinutes()),
                plan.steadyLag().isPresent() ? plan.steadyLag().getAsLong() : null);
    }

    private static @Nullable Double orNull(OptionalDouble figure) {
        return figure.isPresent() ? figure.getAsDouble() : null;
    }

    private static void atLeastZero(String name, long bytes) {
        if (bytes < 0) {
            throw new IllegalArgumentException(name + " is " + bytes + ", must be at least 0");
        }
    }

    private static double interval(@Nullable Double minutes) {
        if (minutes == null || !(minutes > 0) || minutes > 525_600) {
            throw new IllegalArgumentException(
                    "intervalMinutes is " + minutes + ", must be more than 0, and at most 525600");
        }
        return minutes;
    }
}
