package org.vastshelf.core.gate;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.profile.GCProfiler;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.options.OptionsBuilder;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Cidr;
import org.vastshelf.core.estate.ExportRule;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation.Client;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.FileOperation.Protocol;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.unit.Bytes;

/** The gate alone, with 15,000 homes, 200 rules and 20,000 people; {@code ./shelf bench gate} runs it. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(java.util.concurrent.TimeUnit.NANOSECONDS)
public class GateBenchmark {

    private static final int PEOPLE = 20_000;
    private static final int HOMES = 15_000;
    private static final int RULES = 200;
    private static final int ASKED = 1 << 12;
    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");

    private final Map<String, Person> people = new HashMap<>();
    private final FileOperation[] operations = new FileOperation[ASKED];
    private final GateView[] views = new GateView[ASKED];
    private int next;

    @Setup
    public void prepare() {
        for (int i = 0; i < PEOPLE; i++) {
            String uid = "person-" + i;
            people.put(uid, new Person(uid, "Person " + i, "", Set.of("group-" + i % 40, "all")));
        }
        Share share = new Share(
                "homes",
                "homes",
                true,
                true,
                true,
                List.of(new AccessRule(AccessRule.Subject.GROUP, "all", AccessRule.Level.WRITE)),
                List.of(new ExportRule(new Cidr("10.20.0.0/16"), true)),
                Optional.of(FilePath.ROOT));
        GateView.Limits limits = GateView.Limits.of(accounts());
        GateView.Reach reach = new GateView.Reach(share, Samples.SERVER, "oak", false);
        GateView.Space space =
                new GateView.Space(Samples.volume("homes", "oak", 9_000, true), Bytes.tib(1), Optional.empty());
        for (int i = 0; i < ASKED; i++) {
            String uid = "person-" + i * 7_919L % HOMES;
            operations[i] = new FileOperation(
                    Kind.WRITE,
                    uid,
                    "homes",
                    new FilePath("/" + uid + "/projects/2026/draft-" + i + ".odt"),
                    Bytes.of(40_000),
                    new Client("10.20.4.20", i % 2 == 0 ? Protocol.SMB : Protocol.NFS));
            views[i] = new GateView(reach, new GateView.Access(share, people.get(uid)), limits, space);
        }
    }

    /** One rule for all homes, as in life, and rules of some people's own folders. */
    private static List<Account> accounts() {
        List<Account> accounts = new ArrayList<>();
        LimitRule homes = rule("/", true);
        for (int i = 0; i < HOMES; i++) {
            accounts.add(account(homes, "/person-" + i));
        }
        for (int i = 1; i < RULES; i++) {
            String folder = i == 1 ? "/" : "/person-" + i + "/projects";
            accounts.add(account(rule(folder, false), folder));
        }
        return accounts;
    }

    private static LimitRule rule(String folder, boolean eachChild) {
        return Samples.rule(folder, eachChild, 1L << 40, 1L << 41, 1L << 42);
    }

    private static Account account(LimitRule rule, String folder) {
        return new Account(rule, new FilePath(folder), Bytes.gib(3), AccountState.FRESH);
    }

    @Benchmark
    public boolean allow() {
        int i = next++ & ASKED - 1;
        return Gate.refusedAt(operations[i], views[i], NOW).isEmpty();
    }

    @Test
    @EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
    void a_plain_yes_takes_at_most_two_microseconds_and_makes_nothing() throws Exception {
        RunResult result = new Runner(new OptionsBuilder()
                        .include(GateBenchmark.class.getSimpleName())
                        .warmupIterations(3)
                        .warmupTime(org.openjdk.jmh.runner.options.TimeValue.seconds(2))
                        .measurementIterations(5)
                        .measurementTime(org.openjdk.jmh.runner.options.TimeValue.seconds(2))
                        .forks(1)
                        .addProfiler(GCProfiler.class)
                        .build())
                .runSingle();
        double nanos = result.getPrimaryResult().getScore();
        double bytes = result.getSecondaryResults().get("gc.alloc.rate.norm").getScore();
        System.out.printf(java.util.Locale.ROOT, "gate: %.0f ns and %.3f bytes for a plain yes%n", nanos, bytes);
        assertThat(bytes).isLessThan(1);
        assertThat(Duration.ofNanos((long) nanos)).isLessThan(Duration.ofNanos(2_000));
    }
}
