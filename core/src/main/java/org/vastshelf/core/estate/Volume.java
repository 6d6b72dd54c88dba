package org.vastshelf.core.estate;

import java.util.Optional;
import org.vastshelf.core.unit.Bytes;

/**
 * A file system carved from a pool.
 *
 * @param size what it may hold; a thick volume takes all of it from the pool at once, a thin one what it uses
 * @param blockSize allocation unit in bytes
 * @param alarmPercent share used, in per cent, from which it wants attention
 * @param kind what its file system can do
 * @param encrypted whether what lies on the drives is encrypted
 * @param movingTo the pool to which it is being moved and which holds room for it; mostly empty
 */
public record Volume(
        String name,
        String pool,
        Bytes size,
        boolean thin,
        int blockSize,
        int alarmPercent,
        FileSystemKind kind,
        boolean encrypted,
        Pace pace,
        Optional<String> movingTo) {

    public static final Bytes LEAST = Bytes.gib(1);
    public static final Bytes MOST = Bytes.tib(1024);
    public static final int DEFAULT_BLOCK = 65_536;
    public static final int DEFAULT_ALARM = 85;

    public Volume {
        Names.require("volume name", name);
        if (size.compareTo(LEAST) < 0 || size.isMoreThan(MOST)) {
            throw new IllegalArgumentException("volume size is " + size.value() + " bytes, must be 1 GiB to 1,024 TiB");
        }
        if (Integer.bitCount(blockSize) != 1 || blockSize < 4_096 || blockSize > 1_048_576) {
            throw new IllegalArgumentException(
                    "block size is " + blockSize + " bytes, must be a power of two from 4096 to 1048576");
        }
        if (alarmPercent < 1 || alarmPercent > 100) {
            throw new IllegalArgumentException("alarm level is " + alarmPercent + " %, must be 1 to 100");
        }
    }

    /** With checksums, by size, not encrypted, not growing by itself. */
    public static Volume plain(String name, String pool, Bytes size, boolean thin, int blockSize, int alarmPercent) {
        return new Volume(
                name,
                pool,
                size,
                thin,
                blockSize,
                alarmPercent,
                FileSystemKind.GUARDED,
                false,
                Pace.BY_SIZE,
                Optional.empty());
    }

    public Volume withSize(Bytes next) {
        return new Volume(name, pool, next, thin, blockSize, alarmPercent, kind, encrypted, pace, movingTo);
    }

    public Volume withThin(boolean next) {
        return new Volume(name, pool, size, next, blockSize, alarmPercent, kind, encrypted, pace, movingTo);
    }

    public Volume withAlarm(int next) {
        return new Volume(name, pool, size, thin, blockSize, next, kind, encrypted, pace, movingTo);
    }

    public Volume withPace(Pace next) {
        return new Volume(name, pool, size, thin, blockSize, alarmPercent, kind, encrypted, next, movingTo);
    }

    /** On another pool, and not on its way any more. */
    public Volume on(String otherPool) {
        return new Volume(
                name, otherPool, size, thin, blockSize, alarmPercent, kind, encrypted, pace, Optional.empty());
    }

    public Volume moving(Optional<String> to) {
        return new Volume(name, pool, size, thin, blockSize, alarmPercent, kind, encrypted, pace, to);
    }

    /** An empty thin one of the same kind and size. */
    public Volume likewise(String otherName, String otherPool) {
        return new Volume(
                otherName, otherPool, size, true, blockSize, alarmPercent, kind, encrypted, pace, Optional.empty());
    }

    /** Whether it lies on a pool or is on its way there. */
    public boolean isOn(String name) {
        return pool.equals(name) || movingTo.filter(name::equals).isPresent();
    }

    /** The least multiple of the block size that holds this many bytes. */
    public Bytes allocated(Bytes logical) {
        return Bytes.of(allocatedBytes(logical.value()));
    }

    public long allocatedBytes(long logical) {
        return Math.addExact(logical, blockSize - 1L) & -blockSize;
    }
}
