package org.vastshelf.app.api;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.core.layout.DriveRates;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutAnswer;
import org.vastshelf.core.layout.LayoutAnswer.NotPossible;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.unit.Bytes;

/** Compares layouts for any drives. */
@RestController
class LayoutsApi {

    record Drives(@Nullable Long bytes, @Nullable Integer count) {}

    record Request(
            @Nullable List<Drives> drives,
            @Nullable Integer spares,
            @Nullable Long driveReserveBytes,
            @Nullable Long alignBytes,
            @Nullable Double annualFailureRate,
            @Nullable Double unrecoverableReadErrorPerBit,
            @Nullable Double rebuildMiBps) {}

    record Answer(
            Layout layout,
            boolean possible,
            @Nullable String reason,
            @Nullable Long dataBytes,
            @Nullable Integer survives,
            @Nullable Long strandedBytes,
            @Nullable Double rebuildHours,
            @Nullable Double yearlyLossOdds) {}

    record Answers(List<Answer> layouts) {}

    @PostMapping("/api/v1/layouts/compare")
    Answers compare(@RequestBody Request request) {
        DriveRates rates = new DriveRates(
                or(request.annualFailureRate, 0.015),
                or(request.unrecoverableReadErrorPerBit, 1e-15),
                or(request.rebuildMiBps, 120.0));
        LayoutQuestion question = new LayoutQuestion(
                drives(request),
                or(request.spares, 0),
                bytes("driveReserveBytes", or(request.driveReserveBytes, LayoutQuestion.DEFAULT_RESERVE.value())),
                bytes("alignBytes", or(request.alignBytes, LayoutQuestion.DEFAULT_ALIGN.value())),
                rates);
        return new Answers(LayoutComparison.compare(question).stream()
                .map(LayoutsApi::answer)
                .toList());
    }

    private static List<Bytes> drives(Request request) {
        if (request.drives == null) {
            throw new IllegalArgumentException("drives is missing, must list drives as {\"bytes\":…,\"count\":…}");
        }
        List<Bytes> drives = new ArrayList<>();
        for (int i = 0; i < request.drives.size(); i++) {
            Drives group = request.drives.get(i);
            if (group == null || group.bytes == null || group.bytes < 1) {
                throw new IllegalArgumentException(
                        "drives[" + i + "].bytes is " + (group == null ? null : group.bytes) + ", must be at least 1");
            }
            int count = or(group.count, 1);
            if (count < 1 || count > LayoutQuestion.MOST_DRIVES) {
                throw new IllegalArgumentException(
                        "drives[" + i + "].count is " + count + ", must be 1 to " + LayoutQuestion.MOST_DRIVES);
            }
            if (drives.size() + count > LayoutQuestion.MOST_DRIVES) {
                throw new IllegalArgumentException("drives holds more than " + LayoutQuestion.MOST_DRIVES
                        + " drives up to drives[" + i + "], must be at most so many");
            }
            drives.addAll(Collections.nCopies(count, Bytes.of(group.bytes)));
        }
        return drives;
    }

    private static Bytes bytes(String name, long value) {
        if (value < 0) {
            throw new IllegalArgumentException(name + " is " + value + ", must be at least 0");
        }
        return Bytes.of(value);
    }

    private static <T> T or(@Nullable T value, T otherwise) {
        return value == null ? otherwise : value;
    }

    private static Answer answer(LayoutAnswer answer) {
        return switch (answer) {
            case NotPossible not ->
                new Answer(not.layout(), false, not.reason() + "; " + not.remedy(), null, null, null, null, null);
            case Possible p ->
                new Answer(
                        p.layout(),
                        true,
                        null,
                        p.data().value(),
                        p.survives(),
                        p.stranded().value(),
                        p.rebuildHours().isPresent() ? p.rebuildHours().getAsDouble() : null,
                        p.yearlyLossOdds());
        };
    }
}
