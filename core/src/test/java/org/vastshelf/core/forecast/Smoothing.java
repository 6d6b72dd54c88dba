package org.vastshelf.core.forecast;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;

/** Automatic exponential smoothing by R's forecast package (Hyndman and Khandakar 2008), to be held against ours. */
final class Smoothing {

    private static final int WEEKS = 52;
    private static final int STEP = 7;

    private Smoothing() {}

    /** Bounds of 10, 50 and 90 % at the end of each week. */
    record Bounds(double[] values) {

        /** Mean pinball loss over the held-out weeks, as a share of what was used at the cut. */
        double loss(Families.Series held) {
            double sum = 0;
            int seen = 0;
            for (int week = 0; week < WEEKS; week++) {
                int at = held.days() - 1 + STEP * (week + 1);
                if (at < held.values().length) {
                    sum += Calibration.loss(
                            held.values()[at], values[3 * week], values[3 * week + 1], values[3 * week + 2]);
                    seen++;
                }
            }
            return sum / seen / held.values()[held.days() - 1];
        }
    }

    /** Whether R with the package is on this machine. */
    static boolean isThere() {
        try {
            Process process = new ProcessBuilder("Rscript", "-e", "library(forecast)")
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            return process.waitFor(60, TimeUnit.SECONDS) && process.exitValue() == 0;
        } catch (IOException missing) {
            return false;
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    static List<Bounds> of(List<Families.Series> all) {
        try {
            Path script = Files.createTempFile("smoothing", ".R");
            Path in = Files.createTempFile("series", ".txt");
            Path out = Files.createTempFile("bounds", ".txt");
            try (var source = Smoothing.class.getResourceAsStream("smoothing.R")) {
                Files.write(script, source.readAllBytes());
            }
            Files.write(in, all.stream().map(Smoothing::line).toList());
            int result = new ProcessBuilder("Rscript", script.toString(), String.valueOf(WEEKS))
                    .redirectInput(in.toFile())
                    .redirectOutput(out.toFile())
                    .redirectError(ProcessBuilder.Redirect.INHERIT)
                    .start()
                    .waitFor();
            List<Bounds> bounds =
                    Files.readAllLines(out).stream().map(Smoothing::bounds).toList();
            for (Path file : List.of(script, in, out)) {
                Files.delete(file);
            }
            if (result != 0 || bounds.size() != all.size()) {
                throw new IllegalStateException("R answered " + result + " after " + bounds.size() + " series");
            }
            return bounds;
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } catch (InterruptedException interrupted) {
            throw new IllegalStateException(interrupted);
        }
    }

    private static String line(Families.Series series) {
        return Arrays.stream(series.values(), 0, series.days())
                .mapToObj(value -> String.valueOf((long) value))
                .collect(Collectors.joining(" "));
    }

    private static Bounds bounds(String line) {
        return new Bounds(Arrays.stream(line.trim().split(" +"))
                .mapToDouble(Double::parseDouble)
                .toArray());
    }
}
