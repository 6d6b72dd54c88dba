package org.vastshelf.core.limit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

class AccountTest {

    private static final UnitSystem BINARY = UnitSystem.BINARY;

    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");

    private static Account account(LimitRule rule, long used, AccountState state) {
        return new Account(rule, new FilePath("/suki"), Bytes.of(used), state);
    }

    @Property
    void stop_refuses_exactly_what_would_exceed_it(
            @ForAll @LongRange(min = 0, max = 2_000) long used, @ForAll @LongRange(min = 1, max = 2_000) long growth) {
        Account account = account(Samples.rule("/", true, 0, 0, 1_000), used, AccountState.FRESH);
        assertThat(account.grow(Bytes.of(growth), NOW, BINARY) instanceof Account.Allows)
                .isEqualTo(used + growth <= 1_000);
    }

    @Test
    void grace_runs_from_the_crossing_and_ends() {
        LimitRule rule = Samples.rule("/", true, 0, 500, 1_000);
        assertThat(account(rule, 400, AccountState.FRESH).grow(Bytes.of(200), NOW, BINARY))
                .isInstanceOf(Account.Allows.class);
        AccountState crossed =
                AccountState.FRESH.after(rule, Bytes.of(600), NOW).state();
        assertThat(crossed.graceSince()).contains(NOW);
        Instant before = NOW.plus(Duration.ofDays(7)).minusSeconds(1);
        assertThat(account(rule, 600, crossed).grow(Bytes.of(1), before, BINARY))
                .isInstanceOf(Account.Allows.class);
        assertThat(account(rule, 600, crossed).grow(Bytes.of(1), NOW.plus(Duration.ofDays(7)), BINARY))
                .isEqualTo(new Account.Refuses(
                        "holds 600 B, over its grace level of 500 B, and the grace time ended 2026-03-09T08:00:00Z",
                        "remove at least 101 B from /suki"));
    }

    @Test
    void grace_begins_anew_after_usage_was_back_at_its_level() {
        LimitRule rule = Samples.rule("/", true, 0, 500, 0);
        AccountState crossed =
                AccountState.FRESH.after(rule, Bytes.of(600), NOW).state();
        AccountState back =
                crossed.after(rule, Bytes.of(500), NOW.plusSeconds(60)).state();
        assertThat(back.graceSince()).isEmpty();
        AccountState again =
                back.after(rule, Bytes.of(501), NOW.plusSeconds(120)).state();
        assertThat(again.graceSince()).contains(NOW.plusSeconds(120));
    }

    @Test
    void levels_report_once_for_each_crossing_with_hysteresis() {
        LimitRule rule = Samples.rule("/", true, 1_000, 0, 0);
        AccountState state = AccountState.FRESH;
        long[] used = {900, 1_000, 1_050, 995, 1_001, 989, 1_000};
        StringBuilder reported = new StringBuilder();
        for (long bytes : used) {
            AccountState.Next next = state.after(rule, Bytes.of(bytes), NOW);
            next.crossings()
                    .forEach(c -> reported.append(c.rising() ? '+' : '-')
                            .append(bytes)
                            .append(' '));
            state = next.state();
        }
        assertThat(reported.toString()).isEqualTo("+1000 -989 +1000 ");
    }

    @ParameterizedTest
    @CsvSource({
        "/, false, /a.mov, /",
        "/, false, /x/y/a.mov, /",
        "/cuts, false, /cuts/2026/a.mov, /cuts",
        "/cuts, false, /other/a.mov, ''",
        "/, true, /suki/2026/a.mov, /suki",
        "/, true, /a.mov, ''",
        "/team, true, /team/suki/a.mov, /team/suki",
        "/team, true, /team/a.mov, ''",
    })
    void a_rule_finds_its_account(String path, boolean eachChild, String file, String account) {
        Optional<FilePath> found = Samples.rule(path, eachChild, 0, 0, 5).accountFor(new FilePath(file));
        assertThat(found.map(FilePath::text).orElse("")).isEqualTo(account);
    }

    @Test
    void levels_that_cross_are_refused() {
        assertThatThrownBy(() -> Samples.rule("/", false, 20, 0, 10))
                .hasMessage("stop level is 10 bytes, must be at least the warn level of 20 bytes");
        assertThatThrownBy(() -> Samples.rule("/", false, 0, 20, 10))
                .hasMessage("stop level is 10 bytes, must be at least the grace level of 20 bytes");
    }

    @Test
    void owners_have_accounts_of_their_own() {
        LimitRule people = new LimitRule(
                "film",
                new FilePath("/work"),
                false,
                Apart.PERSON,
                Optional.empty(),
                Optional.empty(),
                LimitRule.DEFAULT_GRACE,
                Optional.of(Bytes.of(1_000)));
        Account suki = new Account(people, people.path(), "suki", Bytes.of(900), AccountState.FRESH);
        assertThat(suki.counts("suki", "film-makers")).isTrue();
        assertThat(suki.counts("odile", "suki")).isFalse();
        assertThat(suki.title()).isEqualTo("suki's files in film/work");
        assertThat(suki.holder()).isEqualTo("suki");
        assertThat(people.key()).isEqualTo("film:/work//person");
        assertThat(people.whose()).isEqualTo("each person");
        assertThat(suki.grow(Bytes.of(101), NOW, BINARY))
                .isInstanceOfSatisfying(
                        Account.Refuses.class,
                        r -> assertThat(r.remedy()).isEqualTo("remove at least 1 B from suki's files in film/work"));
        assertThatThrownBy(() -> new LimitRule(
                        "film",
                        FilePath.ROOT,
                        true,
                        Apart.GROUP,
                        Optional.empty(),
                        Optional.empty(),
                        LimitRule.DEFAULT_GRACE,
                        Optional.empty()))
                .hasMessage("apart is GROUP, must be NOBODY where each child folder has an account");
    }
}
