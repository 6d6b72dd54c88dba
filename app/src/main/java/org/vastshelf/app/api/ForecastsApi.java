package org.vastshelf.app.api;

import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.foresee.BroughtIn;
import org.vastshelf.app.foresee.HistoryTable;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.forecast.FillDates;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.forecast.MendedHistory;
import org.vastshelf.core.forecast.Method;
import org.vastshelf.core.unit.Bytes;

/** Forecasts the fill date of any space. */
@RestController
class ForecastsApi {

    record Day(@Nullable String day, @Nullable Long usedBytes) {}

    record Request(@Nullable Long capacityBytes, @Nullable List<Day> history) {}

    record Answer(
            Method method,
            @Nullable LocalDate early,
            @Nullable LocalDate likely,
            @Nullable LocalDate late,
            Map<Integer, Double> fullWithin,
            List<FillForecast.Rival> rivals,
            List<FillForecast.Finding> findings,
            List<FillForecast.BandDay> band) {}

    private final BroughtIn broughtIn;

    ForecastsApi(BroughtIn broughtIn) {
        this.broughtIn = broughtIn;
    }

    /** Brings in what a space held, as a table of {@code day} and used bytes with their unit in the header. */
    @PostMapping(path = "/api/v1/spaces/{kind}/{name}/history", consumes = "text/csv")
    BroughtIn.Report bringIn(
            @AuthenticationPrincipal Someone me, @PathVariable String kind, @PathVariable String name, InputStream body)
            throws IOException {
        return broughtIn.bring(
                me.getName(), kind, name, HistoryTable.read(new InputStreamReader(body, StandardCharsets.UTF_8)));
    }

    @PostMapping("/api/v1/forecasts/fill-date")
    Answer fillDate(@RequestBody Request request) {
        if (request.capacityBytes == null || request.capacityBytes < 1) {
            throw new IllegalArgumentException("capacityBytes is " + request.capacityBytes + ", must be at least 1");
        }
        MendedHistory mended = MendedHistory.of(days(request.history));
        FillForecast forecast = FillDates.forecast(Bytes.of(request.capacityBytes), mended.history())
                .after(mended.findings());
        return new Answer(
                forecast.method(),
                forecast.early().orElse(null),
                forecast.likely().orElse(null),
                forecast.late().orElse(null),
                new TreeMap<>(forecast.fullWithin()),
                forecast.rivals(),
                forecast.findings(),
                forecast.band());
    }

    private static List<History.DayUse> days(@Nullable List<Day> days) {
        if (days == null) {
            throw new IllegalArgumentException("history is missing, must list days as {\"day\":…,\"usedBytes\":…}");
        }
        List<History.DayUse> uses = new ArrayList<>();
        for (int i = 0; i < days.size(); i++) {
            Day day = days.get(i);
            if (day == null || day.usedBytes == null || day.usedBytes < 0) {
                throw new IllegalArgumentException("history[" + i + "].usedBytes is "
                        + (day == null ? null : day.usedBytes) + ", must be at least 0");
            }
            uses.add(new History.DayUse(date(i, day.day), Bytes.of(day.usedBytes)));
        }
        return uses;
    }

    private static LocalDate date(int i, @Nullable String text) {
        try {
            return LocalDate.parse(String.valueOf(text));
        } catch (DateTimeParseException none) {
            throw new IllegalArgumentException(
                    "history[" + i + "].day is " + text + ", must be a day such as 2026-03-02");
        }
    }
}
