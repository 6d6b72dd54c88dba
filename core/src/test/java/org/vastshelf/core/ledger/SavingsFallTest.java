package org.vastshelf.core.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;

class SavingsFallTest {

    private static final Pool OAK = Pool.reservation("oak", "one", Bytes.gib(1_000), PaceClass.STEADY);
    private static final Estate ESTATE = Estate.EMPTY
            .with(Kinds.SITE, List.of(new Site("a", "A")))
            .with(Kinds.SERVER, List.of(FileServer.of("one", "a", "one.example", "10.0.0.1", 1, true)))
            .with(Kinds.POOL, List.of(OAK))
            .with(Kinds.VOLUME, Samples.volume("film", "oak", 800, true))
            .with(Kinds.VOLUME, Samples.volume("text", "oak", 400, false));

    /** Gibibytes of a volume's own, kept in common, and what the same files would take each for itself. */
    private static Usage.Held held(long live, long kept, long whole) {
        return new Usage.Held(
                Bytes.gib(live),
                Bytes.ZERO,
                new Usage.Borrowed(Bytes.ZERO, Bytes.ZERO),
                new Usage.Common(Bytes.gib(kept), Bytes.gib(whole)));
    }

    @Test
    void what_is_saved_comes_back_as_bytes_that_need_room() {
        // The thick one takes 400 anyway; 300 and 100 of the thin one leave 200. 500 are saved on it, 100 on the other.
        Usage usage = new Usage(Map.of("film", held(300, 100, 600), "text", held(100, 50, 150)));

        SavingsFall fall = SavingsFall.of(ESTATE, usage, OAK).orElseThrow();

        assertThat(fall.saved()).isEqualTo(Bytes.gib(600));
        assertThat(fall.steps())
                .containsExactly(
                        new SavingsFall.Step(100, Bytes.gib(800), Bytes.gib(200), Bytes.ZERO, 1.2, 0),
                        new SavingsFall.Step(50, Bytes.gib(1_050), Bytes.ZERO, Bytes.gib(50), 1.2, 0),
                        new SavingsFall.Step(0, Bytes.gib(1_300), Bytes.ZERO, Bytes.gib(300), 1.3, 1));
        assertThat(fall.least()).as("of 500 on the thin one 200 may come back").isEqualTo(60);
    }

    @Test
    void nothing_is_said_where_nothing_is_saved() {
        Usage usage = new Usage(Map.of("film", held(300, 0, 0), "text", held(0, 0, 0)));

        assertThat(SavingsFall.of(ESTATE, usage, OAK)).isEqualTo(Optional.empty());
    }

    @Property
    void the_less_is_saved_the_more_is_used(
            @ForAll @LongRange(max = 300) long live,
            @ForAll @LongRange(min = 1, max = 200) long kept,
            @ForAll @LongRange(min = 1, max = 900) long more) {
        Usage usage = new Usage(Map.of("film", held(live, kept, kept + more), "text", held(0, 0, 0)));

        SavingsFall fall = SavingsFall.of(ESTATE, usage, OAK).orElseThrow();

        ByteLedger now = Ledgers.ofPool(ESTATE, usage, OAK);
        assertThat(fall.steps().getFirst().free()).isEqualTo(now.free());
        assertThat(fall.without().used().value()
                        - fall.steps().getFirst().used().value())
                .isEqualTo(Bytes.gib(more).value());
        assertThat(fall.least() == 0).isEqualTo(fall.without().lacking().isZero());
        assertThat(fall.steps()).isSortedAccordingTo((a, b) -> a.used().compareTo(b.used()));
    }
}
