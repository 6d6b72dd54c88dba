package org.vastshelf.standins.device;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.vastshelf.core.change.Devices;
import org.vastshelf.core.change.Step;

/**
 * File servers that take their time and remember what they were told, also across a killed application: each piece of
 * work is a line "key begin end" in their own log, "key delayed end" after a rest, and "key -" once it was taken back.
 */
public final class SimulatedDevices implements Devices {

    private final Path log;
    private final Map<String, Instant> ends = new HashMap<>();

    public SimulatedDevices(Path log) {
        this.log = log;
        try {
            Files.createDirectories(log.toAbsolutePath().getParent());
            if (Files.exists(log)) {
                Files.readAllLines(log).forEach(this::read);
            }
        } catch (IOException e) {
            throw new UncheckedIOException("the simulated devices cannot read their log " + log, e);
        }
    }

    private void read(String line) {
        String[] parts = line.split(" ");
        if (parts.length == 3) {
            ends.put(parts[0], Instant.parse(parts[2]));
        } else if (parts.length == 2) {
            ends.remove(parts[0]);
        }
    }

    @Override
    public synchronized Instant begin(String key, Step step, Instant at) {
        Instant known = ends.get(key);
        if (known != null) {
            return known;
        }
        Instant end = at.plus(step.expected());
        ends.put(key, end);
        write(key + " " + at + " " + end);
        return end;
    }

    @Override
    public synchronized Optional<Instant> endOf(String key) {
        return Optional.ofNullable(ends.get(key));
    }

    @Override
    public synchronized void delay(String key, Duration by) {
        Instant end = ends.get(key);
        if (end != null) {
            Instant later = end.plus(by);
            ends.put(key, later);
            write(key + " delayed " + later);
        }
    }

    @Override
    public synchronized void takeBack(String key) {
        if (ends.remove(key) != null) {
            write(key + " -");
        }
    }

    private void write(String line) {
        try {
            Files.writeString(
                    log, line + "\n", StandardOpenOption.CREATE, StandardOpenOption.APPEND, StandardOpenOption.DSYNC);
        } catch (IOException e) {
            throw new UncheckedIOException("the simulated devices cannot write their log " + log, e);
        }
    }
}
