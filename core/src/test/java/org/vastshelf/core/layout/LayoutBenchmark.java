package org.vastshelf.core.layout;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.OptionsBuilder;
import org.openjdk.jmh.runner.options.TimeValue;
import org.vastshelf.core.unit.Bytes;

/** How the search for layouts grows with the drives; run by ./shelf bench jmh. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
public class LayoutBenchmark {

    @Param({"8", "100", "1000"})
    int drives;

    private LayoutQuestion question;

    @Setup
    public void rack() {
        List<Bytes> labels = new ArrayList<>();
        for (int i = 0; i < drives; i++) {
            labels.add(Bytes.of((4L + 4 * (i % 5)) * 1_000_000_000_000L));
        }
        question = LayoutQuestion.withDefaults(labels, 0, new DriveRates(0.015, 1e-15, 120));
    }

    @Benchmark
    public List<LayoutAnswer> compareAllLayouts() {
        return LayoutComparison.compare(question);
    }

    @Benchmark
    public LayoutComparison.Space bytesAlone() {
        return LayoutComparison.space(Layout.TERRACED_2, question);
    }

    @Test
    @EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
    void measure() throws RunnerException {
        new Runner(new OptionsBuilder()
                        .include(LayoutBenchmark.class.getSimpleName())
                        .forks(1)
                        .warmupIterations(2)
                        .warmupTime(TimeValue.seconds(1))
                        .measurementIterations(3)
                        .measurementTime(TimeValue.seconds(1))
                        .build())
                .run();
    }
}
