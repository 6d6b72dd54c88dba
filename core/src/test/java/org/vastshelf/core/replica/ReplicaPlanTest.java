package org.vastshelf.core.replica;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.vastshelf.core.replica.ReplicaPlan.Link;

class ReplicaPlanTest {

    private static final long GIB = 1L << 30;
    private static final Link SLOW = new Link(10, 20);

    @Test
    void in_step_each_write_waits_for_the_round_trip_and_its_bytes() {
        ReplicaPlan plan = ReplicaPlan.inStep(1_000 * GIB, 100 * GIB, SLOW);
        assertThat(plan.possible()).isTrue();
        assertThat(plan.seedingHours()).isCloseTo(28.444, within(0.001));
        assertThat(plan.addedMillis().orElseThrow()).isCloseTo(26.25, within(1e-9));
        assertThat(plan.greatestLossMinutes()).isEmpty();
        assertThat(ReplicaPlan.inStep(0, 86_400L * 10 << 20, SLOW).possible()).isTrue();
        assertThat(ReplicaPlan.inStep(0, (86_400L * 10 << 20) + 1, SLOW)
                        .reason()
                        .orElseThrow())
                .contains("905969664001 bytes change in a day", "10.000 MiB/s");
    }

    @Test
    void by_interval_what_changed_has_to_go_within_the_interval() {
        ReplicaPlan plan = ReplicaPlan.byInterval(GIB, 144 * GIB, SLOW, 60);
        assertThat(plan.greatestLossMinutes().orElseThrow()).isCloseTo(60 + 10.24, within(1e-9));
        assertThat(plan.steadyLag().orElseThrow()).isEqualTo(Math.round(144.0 * GIB * 70.24 / 1_440));
        assertThat(plan.addedMillis()).isEmpty();
        ReplicaPlan never = ReplicaPlan.byInterval(GIB, 1_000 * GIB, SLOW, 60);
        assertThat(never.possible()).isFalse();
        assertThat(never.reason().orElseThrow()).contains("60.000 minutes", "71.111 minutes", "11.852 MiB/s");
        assertThat(never.steadyLag()).isEmpty();
        assertThat(never.seedingHours()).isPositive();
    }

    @Test
    void a_link_carries_something() {
        assertThatThrownBy(() -> new Link(0, 1)).hasMessageContaining("linkMibps is 0.0, must be more than 0");
        assertThatThrownBy(() -> new Link(Double.NaN, 1)).hasMessageContaining("NaN");
        assertThatThrownBy(() -> new Link(1, -1)).hasMessageContaining("roundTripMillis is -1.0");
    }
}
