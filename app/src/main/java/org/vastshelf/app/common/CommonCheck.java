package org.vastshelf.app.common;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.EstateAnswer;

/**
 * Whether common units are what versions of files use, each midnight: the sum that was counted along the way, the sum over
 * the units that are kept, and all files counted anew come to the same bytes.
 */
@Component
public class CommonCheck implements DueWork {

    private final CommonCheckStore versions;
    private final CommonStore store;
    private final CommonUnits units;
    private final CommonSweep sweep;
    private final EstateStore estates;
    private final NoticeStore notices;
    private final ShelfClock clock;

    CommonCheck(
            CommonCheckStore versions,
            CommonStore store,
            CommonUnits units,
            CommonSweep sweep,
            EstateStore estates,
            NoticeStore notices,
            ShelfClock clock) {
        this.versions = versions;
        this.store = store;
        this.units = units;
        this.sweep = sweep;
        this.estates = estates;
        this.notices = notices;
        this.clock = clock;
    }

    /**
     * Sums that should be one.
     *
     * @param said as it was counted along the way
     * @param kept over the units that are kept
     * @param counted over all files anew
     */
    public record Drift(String volume, long said, long kept, long counted) {
        String text() {
            return "common units of %s were said to take %,d bytes, are kept with %,d, and files come to %,d"
                    .formatted(volume, said, kept, counted);
        }
    }

    @Override
    public DueKind kind() {
        return DueKind.COMMON;
    }

    @Override
    public void act(String everything, Instant midnight) {
        look();
    }

    @Override
    public boolean isOfNow() {
        return true;
    }

    /** Tells what does not agree. Nobody saves meanwhile. */
    public List<Drift> look() {
        List<Drift> drifts = new ArrayList<>();
        estates.change((estate, held) -> {
            drifts.clear();
            sweep.sweep();
            Map<String, UnitUnion> anew = anew();
            estate.volumes()
                    .keySet()
                    .forEach(volume -> look(volume, anew.getOrDefault(volume, new UnitUnion()))
                            .ifPresent(drifts::add));
            return new EstateAnswer.Changed(estate);
        });
        if (!drifts.isEmpty()) {
            notices.tellAdministrators(
                    clock.instant(),
                    "Common units are not what was counted",
                    String.join(". ", drifts.stream().map(Drift::text).toList()) + ".");
        }
        return drifts;
    }

    private Map<String, UnitUnion> anew() {
        Map<String, UnitUnion> anew = new HashMap<>();
        versions.versions(version -> {
            anew.computeIfAbsent(version.volume(), none -> new UnitUnion())
                    .add(units.runs(version.manner(), version.contents()));
        });
        return anew;
    }

    private Optional<Drift> look(String volume, UnitUnion anew) {
        Drift drift = new Drift(volume, store.bytes(volume), new UnitUnion(store.spans(volume)).bytes(), anew.bytes());
        return drift.said == drift.kept && drift.kept == drift.counted ? Optional.empty() : Optional.of(drift);
    }
}
