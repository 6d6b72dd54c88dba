package org.vastshelf.core.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;

/** What files have in common is taken once, and what that saves is said beside. */
class CommonLedgerTest {

    private static final Estate ESTATE = Estate.EMPTY
            .with(Kinds.SITE, List.of(new Site("a", "A")))
            .with(Kinds.SERVER, List.of(FileServer.of("one", "a", "one.example", "10.0.0.1", 1, true)))
            .with(Kinds.POOL, List.of(Pool.reservation("oak", "one", Bytes.tib(9), PaceClass.STEADY)))
            .with(Kinds.VOLUME, Samples.volume("film", "oak", 4_000, true));

    private static ByteLedger.Line line(ByteLedger ledger, String title) {
        return ledger.lines().stream()
                .filter(line -> line.title().equals(title))
                .findFirst()
                .orElseThrow();
    }

    @Property
    void both_ledgers_take_what_is_kept_and_say_what_is_saved(
            @ForAll @LongRange(max = 1L << 40) long live,
            @ForAll @LongRange(max = 1L << 40) long snapshots,
            @ForAll @LongRange(min = 1, max = 1L << 40) long kept,
            @ForAll @LongRange(min = 1, max = 1L << 40) long more) {
        Usage.Common common = new Usage.Common(Bytes.of(kept), Bytes.of(kept + more));
        Usage.Held held =
                new Usage.Held(Bytes.of(live), Bytes.of(snapshots), new Usage.Borrowed(Bytes.ZERO, Bytes.ZERO), common);
        Usage usage = new Usage(Map.of("film", held));
        ByteLedger pool = Ledgers.ofPool(ESTATE, usage, ESTATE.pools().get("oak"));
        ByteLedger volume = Ledgers.ofVolume(ESTATE, usage, ESTATE.volumes().get("film"));

        for (ByteLedger ledger : List.of(pool, volume)) {
            assertThat(line(ledger, "common units").bytes().value()).isEqualTo(kept);
            assertThat(ledger.saved().value()).isEqualTo(more);
        }
        assertThat(pool.free().value()).isEqualTo(Bytes.tib(9).value() - live - snapshots - kept);
        assertThat(pool.plus(pool).saved().value()).isEqualTo(2 * more);
        assertThat(PoolRoom.of(ESTATE, ESTATE.pools().get("oak")).free(usage)).isEqualTo(pool.free());
    }
}
