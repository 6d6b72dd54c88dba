package org.vastshelf.app.api;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.spare.Spares;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.spare.ShareCost;
import org.vastshelf.core.tier.AgeBand;
import org.vastshelf.core.tier.FileSum;

/** What shares hold by age, what they cost a month, and what would cost less. */
@RestController
class SparedApi {

    private final Spares spares;
    private final String currency;

    SparedApi(Spares spares, Settings settings) {
        this.spares = spares;
        this.currency = settings.currency();
    }

    /** Files that were last used so many days ago, by the last night. */
    record Band(int leastDays, long files, long bytes, long allocatedBytes) {}

    /**
     * A share.
     *
     * @param left what is in a cold store
     * @param monthly money a month, to a hundredth; null without a price of its pool
     * @param measures what would cost less, what saves most first
     */
    record Cost(String share, List<Band> byUse, FileSum left, Optional<BigDecimal> monthly, List<Measure> measures) {}

    /**
     * What could be done.
     *
     * @param saves money a month, with the recalls that are expected
     * @param unusedDays of tiering; null for keeping equal parts once
     */
    record Measure(
            String kind,
            BigDecimal saves,
            Optional<Integer> unusedDays,
            Optional<BigDecimal> once,
            Optional<BigDecimal> recalls,
            Optional<Double> chance) {}

    /** All shares. */
    record Answer(String currency, List<Cost> shares) {}

    /** What all shares cost, and what could be done. */
    @GetMapping("/api/v1/spared")
    Answer spared() {
        return new Answer(
                currency,
                spares.all().stream()
                        .flatMap(spare -> spare.cost().stream())
                        .map(SparedApi::cost)
                        .toList());
    }

    private static Cost cost(ShareCost cost) {
        Ages ages = cost.ages();
        return new Cost(
                cost.share(),
                AgeBand.ALL.stream()
                        .map(band -> band(band, ages.byUse().getOrDefault(band, Ages.Sum.NONE)))
                        .toList(),
                ages.left(),
                cost.monthly(),
                cost.measures().stream().map(SparedApi::measure).toList());
    }

    private static Band band(AgeBand band, Ages.Sum sum) {
        return new Band(band.leastDays(), sum.all().files(), sum.all().bytes(), sum.allocated());
    }

    private static Measure measure(ShareCost.Measure measure) {
        return switch (measure) {
            case ShareCost.KeepOnce once ->
                new Measure(
                        "KEEP_ONCE",
                        once.saves(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty());
            case ShareCost.LetLeave away ->
                new Measure(
                        "LET_LEAVE",
                        away.saves(),
                        Optional.of(away.days()),
                        Optional.of(away.cost().once()),
                        Optional.of(away.cost().recalls()),
                        Optional.of(away.cost().chance()));
        };
    }
}
