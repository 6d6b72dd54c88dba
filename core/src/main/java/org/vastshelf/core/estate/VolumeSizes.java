package org.vastshelf.core.estate;

import java.util.Locale;
import java.util.Optional;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/**
 * Which sizes of volumes a file server has: whole steps, from the least to the most.
 *
 * @param step 1 byte to the least
 * @param least at least {@link Volume#LEAST}
 * @param most at most {@link Volume#MOST}
 */
public record VolumeSizes(Bytes step, Bytes least, Bytes most) {

    /** What a server of one's own has. */
    public static final VolumeSizes ANY = new VolumeSizes(Bytes.of(1), Volume.LEAST, Volume.MOST);
    /** What a managed service has that says nothing else. */
    public static final VolumeSizes SOLD = new VolumeSizes(Bytes.gib(96), Bytes.gib(192), Bytes.tib(300));

    public VolumeSizes {
        if (step.isZero() || step.isMoreThan(least)) {
            throw new IllegalArgumentException(
                    "step of volumes is " + step.value() + " bytes, must be 1 to " + least.value());
        }
        if (least.compareTo(Volume.LEAST) < 0 || least.isMoreThan(most) || most.isMoreThan(Volume.MOST)) {
            throw new IllegalArgumentException("volumes of " + least.value() + " to " + most.value()
                    + " bytes are not possible, must be within " + Volume.LEAST.value() + " to " + Volume.MOST.value());
        }
    }

    /** Why a volume can't have this size; empty when it can. */
    public Optional<String> problem(Bytes size) {
        boolean fits = size.compareTo(least) >= 0 && !size.isMoreThan(most) && isWhole(size);
        return fits
                ? Optional.empty()
                : Optional.of(String.format(Locale.ROOT, "%,d bytes, must be %s", size.value(), text()));
    }

    /** Why a volume can't become so much larger; it may have come with a size that is none of this server's. */
    public Optional<String> problem(Bytes before, Bytes after) {
        Bytes growth = after.minus(before);
        if (after.isMoreThan(most)) {
            return problem(after);
        }
        return isWhole(growth)
                ? Optional.empty()
                : Optional.of(String.format(
                        Locale.ROOT, "%,d bytes more, must be steps of %s", growth.value(), binary(step)));
    }

    /** The growth in whole steps: up to the next one, or down where that would pass a ceiling or the most there is. */
    public Bytes grown(Bytes before, Bytes wanted, Bytes ceiling) {
        long growth = wanted.minus(before).value();
        Bytes up = before.plus(Bytes.of(Math.ceilDiv(growth, step.value()) * step.value()));
        Bytes top = ceiling.min(most);
        if (!up.isMoreThan(top)) {
            return up;
        }
        long room = top.minusOrZero(before).value();
        return before.plus(Bytes.of(room - room % step.value()));
    }

    private boolean isWhole(Bytes size) {
        return size.value() % step.value() == 0;
    }

    /** In words, such as "192 GiB to 300 TiB in steps of 96 GiB". */
    public String text() {
        String range = binary(least) + " to " + binary(most);
        return step.equals(Bytes.of(1)) ? range : range + " in steps of " + binary(step);
    }

    private static String binary(Bytes bytes) {
        return UnitSystem.BINARY.format(bytes);
    }
}
