package org.vastshelf.standins.device;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.vastshelf.core.change.Devices;
import org.vastshelf.core.change.Step;

/**
 * File servers that take their time and remember what they were told, also across a killed application and for every
 * node that asks them. What they remember is a file of lines "key end", read and written under a lock; of work that was
 * begun long ago they forget the oldest.
 */
public final class SimulatedDevices implements Devices {

    private static final int MOST_REMEMBERED = 2_000;

    private final Path file;

    public SimulatedDevices(Path file) {
        this.file = file;
        try {
            Files.createDirectories(file.toAbsolutePath().getParent());
        } catch (IOException e) {
            throw new UncheckedIOException("the simulated devices cannot make the folder of " + file, e);
        }
    }

    @Override
    public Instant begin(String key, Step step, Instant at) {
        return withEnds(ends -> ends.computeIfAbsent(key, k -> at.plus(step.expected())));
    }

    @Override
    public Optional<Instant> endOf(String key) {
        return Optional.ofNullable(withEnds(ends -> ends.get(key)));
    }

    @Override
    public void delay(String key, Duration by) {
        withEnds(ends -> ends.computeIfPresent(key, (k, end) -> end.plus(by)));
    }

    @Override
    public void takeBack(String key) {
        withEnds(ends -> ends.remove(key));
    }

    private synchronized <T> T withEnds(Function<Map<String, Instant>, T> work) {
        try (FileChannel channel = FileChannel.open(
                        file,
                        StandardOpenOption.CREATE,
                        StandardOpenOption.READ,
                        StandardOpenOption.WRITE,
                        StandardOpenOption.DSYNC);
                var lock = channel.lock()) {
            Map<String, Instant> before = read(channel);
            Map<String, Instant> ends = new LinkedHashMap<>(before);
            T answer = work.apply(ends);
            if (!ends.equals(before)) {
                write(channel, ends);
            }
            return answer;
        } catch (IOException e) {
            throw new UncheckedIOException("the simulated devices cannot use their file " + file, e);
        }
    }

    private static Map<String, Instant> read(FileChannel channel) throws IOException {
        Map<String, Instant> ends = new LinkedHashMap<>();
        byte[] bytes = Channels.newInputStream(channel).readAllBytes();
        for (String line : new String(bytes, StandardCharsets.UTF_8).split("\n")) {
            String[] parts = line.split(" ");
            // A kill can cut the last line; that work is begun again.
            if (parts.length == 2 && parts[1].endsWith("Z")) {
                ends.put(parts[0], Instant.parse(parts[1]));
            }
        }
        return ends;
    }

    private static void write(FileChannel channel, Map<String, Instant> ends) throws IOException {
        StringBuilder text = new StringBuilder();
        ends.entrySet().stream()
                .skip(Math.max(0, ends.size() - MOST_REMEMBERED))
                .forEach(e ->
                        text.append(e.getKey()).append(' ').append(e.getValue()).append('\n'));
        ByteBuffer bytes = ByteBuffer.wrap(text.toString().getBytes(StandardCharsets.UTF_8));
        for (long at = 0; bytes.hasRemaining(); ) {
            at += channel.write(bytes, at);
        }
        channel.truncate(bytes.limit());
    }
}
