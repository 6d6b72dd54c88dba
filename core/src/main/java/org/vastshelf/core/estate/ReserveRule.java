package org.vastshelf.core.estate;

import java.util.Optional;
import org.vastshelf.core.unit.Bytes;

/**
 * Room of a volume that is for snapshots.
 *
 * @param bytes at least 1 MiB; files can't take it
 * @param full what happens when snapshots hold more
 */
public record ReserveRule(String volume, Bytes bytes, Full full) implements Rule {

    private static final Bytes LEAST = Bytes.of(Bytes.MIB);

    /** What happens when the reserve is full. */
    public enum Full {
        DELETE_OLDEST("delete the oldest that may go"),
        TAKE_FREE("take from what is free"),
        /** What a copy is kept up by is taken all the same: without it nobody knows what the copy lacks. */
        TAKE_NO_MORE("take no more, but for copies");

        private final String title;

        Full(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    public ReserveRule {
        requireSize(bytes);
    }

    static void requireSize(Bytes bytes) {
        if (bytes.compareTo(LEAST) < 0) {
            throw new IllegalArgumentException(
                    "reserve is " + bytes.value() + " bytes, must be at least " + LEAST.value());
        }
    }

    @Override
    public Kind<ReserveRule> kind() {
        return Kinds.RESERVE;
    }

    @Override
    public Kind<?> subject() {
        return Kinds.VOLUME;
    }

    @Override
    public String governs() {
        return volume;
    }

    @Override
    public ReserveRule governing(String other) {
        return new ReserveRule(other, bytes, full);
    }

    @Override
    public String title() {
        return "Keep " + bytes.value() + " bytes of volume " + volume + " for snapshots; when that is full, "
                + full.title();
    }

    @Override
    public Optional<String> refusal(Estate estate) {
        return fault(estate)
                .or(() -> Optional.of(estate.volumes().get(volume))
                        .filter(v -> !v.kind().keepsSnapshots())
                        .map(v -> "volume " + volume + " keeps no snapshots"))
                .or(() -> Optional.of(estate.volumes().get(volume))
                        .filter(v -> bytes.compareTo(v.size()) >= 0)
                        .map(v -> "the reserve is " + bytes.value() + " bytes, must be less than the "
                                + v.size().value() + " of the volume"));
    }
}
