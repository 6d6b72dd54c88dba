package org.vastshelf.core.ledger;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;

/**
 * What becomes of a pool when less is saved than now: files that no longer have equal parts, or that pack worse, take what
 * they had spared. All volumes are taken to lose the same part.
 *
 * @param saved what is saved now
 * @param least whole per cent of it that have to stay saved for everything to have room, 0 to 100
 * @param steps with all of it, with half and without any
 */
public record SavingsFall(Bytes saved, int least, List<Step> steps) {

    private static final int WHOLE = 100;
    private static final int HALF = 50;

    /**
     * With so much still saved.
     *
     * @param percent of what is saved now, 0 to 100
     * @param used what volumes take; thick ones all of their sizes
     * @param free what is left for volumes
     * @param lacking what does not find room; zero while something is free
     * @param promised what volumes have or were promised, as a multiple of what the pool has
     * @param beyond how many volumes hold more than their size
     */
    public record Step(int percent, Bytes used, Bytes free, Bytes lacking, double promised, int beyond) {}

    /** Nothing where nothing is saved. */
    public static Optional<SavingsFall> of(Estate estate, Usage usage, Pool pool) {
        ByteLedger ledger = Ledgers.ofPool(estate, usage, pool);
        if (ledger.saved().isZero()) {
            return Optional.empty();
        }
        Sums sums =
                new Sums(estate.volumesOn(pool.name()).toList(), usage, ledger.free(), Ledgers.usable(estate, pool));
        int least = WHOLE;
        while (least > 0 && sums.step(least - 1).lacking().isZero()) {
            least--;
        }
        return Optional.of(new SavingsFall(
                ledger.saved(), least, Stream.of(WHOLE, HALF, 0).map(sums::step).toList()));
    }

    /** With nothing saved any more. */
    public Step without() {
        return steps.getLast();
    }

    private record Sums(List<Volume> volumes, Usage usage, Bytes free, Bytes usable) {

        private Step step(int percent) {
            Bytes now = taken(WHOLE);
            Bytes then = taken(percent);
            Bytes more = then.minus(now);
            Bytes promised = Bytes.sum(volumes.stream()
                    .map(volume -> volume.size().max(used(volume, percent)))
                    .toList());
            return new Step(
                    percent,
                    then,
                    free.minusOrZero(more),
                    more.minusOrZero(free),
                    usable.isZero() ? 0 : promised.shareOf(usable),
                    (int) volumes.stream()
                            .filter(volume -> used(volume, percent).isMoreThan(volume.size()))
                            .count());
        }

        private Bytes taken(int percent) {
            return Bytes.sum(volumes.stream()
                    .map(volume -> volume.thin()
                            ? used(volume, percent)
                            : volume.size().max(used(volume, percent)))
                    .toList());
        }

        private Bytes used(Volume volume, int percent) {
            Usage.Held held = usage.of(volume.name());
            long saved = held.common().saved().value();
            long stays = saved / WHOLE * percent + saved % WHOLE * percent / WHOLE;
            return held.used().plus(Bytes.of(saved - stays));
        }
    }
}
