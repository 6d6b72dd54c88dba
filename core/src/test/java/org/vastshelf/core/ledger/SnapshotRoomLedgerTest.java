package org.vastshelf.core.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.PoolReserveRule;
import org.vastshelf.core.estate.ReserveRule;
import org.vastshelf.core.estate.ReserveRule.Full;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;

/** Room that is kept for snapshots is a line of the ledger until they hold it, and no byte is counted twice. */
class SnapshotRoomLedgerTest {

    private static Estate estate(long reserved) {
        return Estate.EMPTY
                .with(Kinds.SITE, List.of(new Site("a", "A")))
                .with(Kinds.SERVER, List.of(FileServer.of("one", "a", "one.example", "10.0.0.1", 1, true)))
                .with(Kinds.POOL, List.of(Pool.reservation("oak", "one", Bytes.gib(1_000), PaceClass.STEADY)))
                .with(
                        Kinds.VOLUME,
                        List.of(
                                Samples.volume("film", "oak", 400, true),
                                Samples.volume("press", "oak", 400, true),
                                Samples.volume("thick", "oak", 100, false)))
                .withRule(new PoolReserveRule("oak", Bytes.gib(reserved), Full.TAKE_FREE))
                .withRule(new ReserveRule("film", Bytes.gib(50), Full.TAKE_FREE));
    }

    private static Usage usage(long film, long press, long thick) {
        return new Usage(Map.of(
                "film", new Usage.Held(Bytes.gib(100), Bytes.gib(film)),
                "press", new Usage.Held(Bytes.gib(200), Bytes.gib(press)),
                "thick", new Usage.Held(Bytes.gib(10), Bytes.gib(thick))));
    }

    private static Bytes kept(ByteLedger ledger) {
        return Bytes.sum(ledger.lines().stream()
                .filter(line -> line.title().equals("kept for snapshots"))
                .map(ByteLedger.Line::bytes)
                .toList());
    }

    @Test
    void what_thin_volumes_snapshots_hold_comes_from_what_is_kept_for_them() {
        Estate estate = estate(60);
        Pool oak = estate.pools().get("oak");
        assertThat(kept(Ledgers.ofPool(estate, usage(0, 0, 5), oak))).isEqualTo(Bytes.gib(60));
        ByteLedger some = Ledgers.ofPool(estate, usage(20, 15, 5), oak);
        assertThat(kept(some)).isEqualTo(Bytes.gib(25));
        assertThat(some.free()).isEqualTo(Bytes.gib(1_000 - 300 - 35 - 100 - 25));
        assertThat(kept(Ledgers.ofPool(estate, usage(50, 15, 5), oak))).isEqualTo(Bytes.ZERO);
        ByteLedger film =
                Ledgers.ofVolume(estate, usage(20, 0, 0), estate.volumes().get("film"));
        assertThat(kept(film)).isEqualTo(Bytes.gib(30));
        assertThat(film.free()).isEqualTo(Bytes.gib(400 - 100 - 20 - 30));
    }

    @Property
    void lines_add_up_and_room_is_the_last_of_them(
            @ForAll @IntRange(min = 1, max = 900) int reserved,
            @ForAll @IntRange(max = 250) int film,
            @ForAll @IntRange(max = 150) int press) {
        Estate estate = estate(reserved);
        Usage usage = usage(film, press, 3);
        Pool oak = estate.pools().get("oak");
        ByteLedger ledger = Ledgers.ofPool(estate, usage, oak);
        assertThat(Bytes.sum(ledger.lines().stream().map(ByteLedger.Line::bytes).toList()))
                .isEqualTo(ledger.label());
        assertThat(PoolRoom.of(estate, oak).free(usage)).isEqualTo(ledger.free());
    }

    @Test
    void a_pool_does_not_keep_all_of_itself_for_snapshots() {
        var plan = Planner.plan(
                estate(60),
                Usage.NONE,
                List.of(new RuleChange.SetRule(new PoolReserveRule("oak", Bytes.gib(1_000), Full.TAKE_FREE))));
        assertThat(plan.checks())
                .filteredOn(check -> check.verdict() == Check.Verdict.REFUSE)
                .singleElement()
                .extracting(Check::text)
                .asString()
                .contains("must be less than the");
    }
}
