package org.vastshelf.core.forecast;

import java.util.List;
import java.util.Random;

/** Series of many tempers, cut somewhere; what came after the cut is held out. */
final class Families {

    static final List<String> NAMES = List.of(
            "line",
            "walk",
            "autoregression",
            "season",
            "shifts",
            "exponential",
            "bursts",
            "saturating",
            "short",
            "pace",
            "uneven");

    private static final double UNIT = 1e9;
    private static final int YEAR = 365;

    private Families() {}

    /**
     * A series.
     *
     * @param days before the cut
     * @param capacity that is reached after the cut; 0 where nothing new is reached
     * @param full days from the cut to when it is
     */
    record Series(double[] values, int days, double capacity, int full) {}

    static Series of(String family, long seed) {
        Random random = new Random(seed * 1_000_003L + family.hashCode());
        boolean brief = family.equals("short");
        int days = brief ? 7 + random.nextInt(7) : (int) Math.round(60 * Math.pow(1_095 / 60.0, random.nextDouble()));
        days = family.equals("season") ? 400 + random.nextInt(696) : days;
        int ahead = brief ? 60 : YEAR;
        double[] values = new Maker(random, days, days + ahead).values(family);
        for (int i = 0; i < values.length; i++) {
            values[i] = Math.rint(Math.max(0, values[i]) * UNIT);
        }
        return cut(values, days, days + (int) (ahead * (0.1 + 0.85 * random.nextDouble())));
    }

    private static Series cut(double[] values, int days, int until) {
        double before = 0;
        for (int i = 0; i < days; i++) {
            before = Math.max(before, values[i]);
        }
        double capacity = 0;
        for (int i = days; i <= until; i++) {
            capacity = Math.max(capacity, values[i]);
        }
        if (capacity <= before * 1.0005) {
            return new Series(values, days, 0, 0);
        }
        int full = days;
        while (values[full] < capacity) {
            full++;
        }
        return new Series(values, days, capacity, full - days + 1);
    }

    /** One series on its way. */
    private static final class Maker {

        private final Random random;
        private final int days;
        private final double[] values;
        private final double base;
        private final double pace;
        private final double noise;

        Maker(Random random, int days, int length) {
            this.random = random;
            this.days = days;
            this.values = new double[length];
            this.base = 1_000 * (0.5 + random.nextDouble());
            this.pace = base * (0.1 + 0.9 * random.nextDouble()) / YEAR;
            this.noise = pace * (0.5 + 8 * random.nextDouble());
        }

        double[] values(String family) {
            switch (family) {
                case "line" -> each(i -> base + pace * i + noise * random.nextGaussian());
                case "walk" -> walk(pace * (0.5 + 5 * random.nextDouble()));
                case "autoregression" -> autoregression(0.7 + 0.29 * random.nextDouble());
                case "season" -> season();
                case "shifts" -> shifts();
                case "exponential" -> exponential();
                case "bursts" -> bursts(1 / (5 + 40 * random.nextDouble()));
                case "saturating" -> saturating();
                case "short" -> brief(random.nextInt(3));
                case "uneven" -> uneven(0.8 + 0.17 * random.nextDouble(), 0.5 + random.nextDouble());
                default -> pace();
            }
            return values;
        }

        private void each(java.util.function.IntToDoubleFunction value) {
            for (int i = 0; i < values.length; i++) {
                values[i] = value.applyAsDouble(i);
            }
        }

        private void walk(double step) {
            each(i -> i == 0 ? base : values[i - 1] + pace + step * random.nextGaussian());
        }

        private void autoregression(double persistence) {
            double step = 2 * noise * Math.sqrt(1 - persistence * persistence);
            double[] rest = new double[1];
            each(i -> {
                rest[0] = persistence * rest[0] + step * random.nextGaussian();
                return base + pace * i + rest[0];
            });
        }

        /** More is saved in some weeks than in others. */
        private void uneven(double persistence, double deviation) {
            double step = deviation * Math.sqrt(1 - persistence * persistence);
            double[] work = new double[1];
            each(i -> {
                work[0] = persistence * work[0] + step * random.nextGaussian();
                return i == 0 ? base : values[i - 1] + pace * (1 + work[0]);
            });
        }

        private void season() {
            double swing = pace * YEAR * (0.05 + 0.35 * random.nextDouble());
            double begin = 2 * Math.PI * random.nextDouble();
            double week = noise * random.nextDouble();
            double[] rest = new double[1];
            each(i -> {
                rest[0] = 0.9 * rest[0] + 0.4 * noise * random.nextGaussian();
                double angle = 2 * Math.PI * i / 365.25;
                return base
                        + pace * i
                        + swing * Math.sin(angle + begin)
                        + 0.3 * swing * Math.sin(2 * (angle + begin))
                        + (i % 7 < 5 ? week : -week)
                        + rest[0];
            });
        }

        private void shifts() {
            double[] level = {base};
            each(i -> {
                if (random.nextDouble() < 1 / 200.0) {
                    level[0] += base * (0.05 + 0.15 * random.nextDouble()) * (random.nextBoolean() ? 1 : -1);
                }
                return level[0] + pace * i + 0.5 * noise * random.nextGaussian();
            });
        }

        private void exponential() {
            double rate = Math.log(1.3 + 1.7 * random.nextDouble()) / YEAR;
            double step = 0.002 + 0.006 * random.nextDouble();
            double persistence = random.nextBoolean() ? 1 : 0.9;
            double[] rest = new double[1];
            each(i -> {
                rest[0] = persistence * rest[0] + step * random.nextGaussian();
                return base * Math.exp(rate * i + rest[0]);
            });
        }

        private void bursts(double rate) {
            double[] level = {base};
            each(i -> {
                if (random.nextDouble() < rate) {
                    level[0] += pace / rate * Math.exp(0.8 * random.nextGaussian() - 0.32);
                }
                if (random.nextDouble() < rate / 4) {
                    level[0] -= pace / rate * 0.7 * random.nextDouble();
                }
                return level[0] + 0.3 * pace * random.nextGaussian();
            });
        }

        private void saturating() {
            double most = base * (1 + 2 * random.nextDouble());
            double middle = days * (0.2 + 0.9 * random.nextDouble());
            double width = days * (0.1 + 0.25 * random.nextDouble());
            each(i -> base + most / (1 + Math.exp(-(i - middle) / width)) + 0.5 * noise * random.nextGaussian());
        }

        private void brief(int kind) {
            switch (kind) {
                case 0 -> each(i -> base + pace * i + 0.3 * noise * random.nextGaussian());
                case 1 -> walk(0.3 * noise);
                default -> autoregression(0.8);
            }
        }

        private void pace() {
            int changed = (int) (days * (0.3 + 0.65 * random.nextDouble()));
            double next = pace * (random.nextBoolean() ? 2 + 3 * random.nextDouble() : 0.1 + 0.4 * random.nextDouble());
            each(i -> base
                    + pace * Math.min(i, changed)
                    + next * Math.max(0, i - changed)
                    + 0.5 * noise * random.nextGaussian());
        }
    }
}
