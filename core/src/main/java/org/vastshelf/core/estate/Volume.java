package org.vastshelf.core.estate;

import org.vastshelf.core.unit.Bytes;

/**
 * A file system carved from a pool.
 *
 * @param size what it may hold; a thick volume takes all of it from the pool at once, a thin one what it uses
 * @param blockSize allocation unit in bytes
 * @param alarmPercent share used, in per cent, from which it wants attention
 */
public record Volume(String name, String pool, Bytes size, boolean thin, int blockSize, int alarmPercent) {

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

    /** The least multiple of the block size that holds this many bytes. */
    public Bytes allocated(Bytes logical) {
        return Bytes.of(Math.addExact(logical.value(), blockSize - 1L)).roundDownTo(Bytes.of(blockSize));
    }
}
