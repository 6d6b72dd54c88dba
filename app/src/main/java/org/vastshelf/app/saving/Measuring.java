package org.vastshelf.app.saving;

import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.vastshelf.core.saving.Chunks;
import org.vastshelf.core.saving.FileChunker;

/**
 * One measurement under way: reads one file after the other, at a rate at most, until all are read, time is up or
 * somebody stops it. A file that changes or vanishes meanwhile is counted as far as it was read.
 */
final class Measuring {

    private static final int PAGE = 500;
    private static final double MIB = 1 << 20;
    private static final long LOOK_NANOS = Duration.ofSeconds(1).toNanos();

    /** Opens a file; empty for one that has no bytes to be read. */
    @FunctionalInterface
    interface Opening {
        Optional<InputStream> open(SavingStore.Entry file) throws IOException;
    }

    /** Where files come from. */
    @FunctionalInterface
    interface Files {
        List<SavingStore.Entry> behind(int folder, byte[] name, int most);
    }

    private final SavingRun.Wanted wanted;
    private final Instant now;
    private final Files files;
    private final Opening opening;
    private final FileChunker chunker;
    private final Chunks chunks;
    private final BooleanSupplier stopped;
    private final long begun = System.nanoTime();
    private Resting resting;
    private long unreadable;
    private long read;
    private long looked = begun;
    private long asked = begun;

    /**
     * @param now from which ages of files are counted
     * @param stopped asked every second; ends it, in the middle of a file too
     */
    Measuring(
            SavingRun.Wanted wanted, Instant now, Resting from, Files files, Opening opening, BooleanSupplier stopped) {
        this.now = now;
        this.stopped = stopped;
        this.wanted = wanted;
        this.resting = from;
        this.files = files;
        this.opening = opening;
        this.chunks = from.chunks();
        this.unreadable = from.unreadable();
        this.chunker = new FileChunker(
                wanted.chunking(), wanted.packing().packer(wanted.chunking().longest()), chunks);
    }

    /** How it ended. */
    enum End {
        ALL,
        BETWEEN_FILES,
        /** What was read of that file is counted, so that it can't go on from there. */
        WITHIN_A_FILE
    }

    /**
     * Goes on until all is read.
     *
     * @param told every second, between two files, with how far it is
     */
    End run(Consumer<Resting> told) {
        List<SavingStore.Entry> page = files.behind(resting.folder(), resting.name(), PAGE);
        while (!page.isEmpty()) {
            for (SavingStore.Entry file : page) {
                if (!read(file)) {
                    return End.WITHIN_A_FILE;
                }
                resting = new Resting(file.folder(), file.name(), unreadable, chunks);
                if (System.nanoTime() - looked > LOOK_NANOS) {
                    looked = System.nanoTime();
                    if (isToEnd()) {
                        return End.BETWEEN_FILES;
                    }
                    told.accept(resting);
                }
            }
            page = files.behind(resting.folder(), resting.name(), PAGE);
        }
        return End.ALL;
    }

    Resting resting() {
        return resting;
    }

    /** Whether it has run as long as it may. */
    boolean isTimeUp() {
        return wanted.seconds() > 0
                && System.nanoTime() - begun
                        > Duration.ofSeconds(wanted.seconds()).toNanos();
    }

    private boolean isToEnd() {
        return isTimeUp() || stopped.getAsBoolean();
    }

    /** Somebody stopped it while a file was read. */
    private static final class Stopped extends IOException {}

    /** False when it was ended in its middle. */
    private boolean read(SavingStore.Entry file) {
        try (InputStream in = opening.open(file).orElse(null)) {
            if (in != null) {
                chunker.<IOException>file(file.measured(now), (into, from, wanted) -> {
                    int bytes = in.readNBytes(into, from, wanted);
                    pace(bytes);
                    return bytes;
                });
            }
        } catch (Stopped ended) {
            return false;
        } catch (IOException gone) {
            unreadable++;
        }
        return true;
    }

    private void pace(int bytes) throws IOException {
        read += bytes;
        if (System.nanoTime() - asked > LOOK_NANOS) {
            asked = System.nanoTime();
            if (isToEnd()) {
                throw new Stopped();
            }
        }
        if (wanted.mibps() == 0) {
            return;
        }

        long due = begun + (long) (read / (wanted.mibps() * MIB) * 1e9);
        long early = due - System.nanoTime();
        if (early > 0) {
            try {
                Thread.sleep(Duration.ofNanos(early));
            } catch (InterruptedException ended) {
                Thread.currentThread().interrupt();
                throw new IOException("interrupted", ended);
            }
        }
    }
}
