package org.vastshelf.app.replica;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.replica.Replica.State;

/** What was sent is a function of time and rate, however often it is looked at. */
class ReplicaRecordTest {

    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");

    private static Replica sending() {
        return Replica.begun("film", NOW).at(1_000).sending(4, NOW, 90_000, 60_000);
    }

    @Test
    void looking_often_is_looking_once() {
        Replica once = sending().until(NOW.plusSeconds(45));
        Replica often = sending();
        for (int i = 1; i <= 45; i++) {
            often = often.until(NOW.plusSeconds(i));
        }
        assertThat(often).isEqualTo(once);
        assertThat(once.sentBytes()).isEqualTo(45_000);
        assertThat(once.until(NOW)).as("time does not run back").isEqualTo(once);
    }

    @Test
    void it_arrives_when_all_is_sent_and_no_more_is() {
        Replica replica = sending();
        assertThat(replica.arrival()).contains(NOW.plusSeconds(60));
        Replica there = replica.until(NOW.plusSeconds(61));
        assertThat(there.hasArrived()).isTrue();
        assertThat(there.sentBytes()).isEqualTo(60_000);
        Replica arrived = there.arrived();
        assertThat(arrived.base()).isEqualTo(4);
        assertThat(arrived.baseAt()).contains(NOW);
        assertThat(arrived.isSending()).isFalse();
    }

    @Test
    void a_slower_link_counts_from_when_it_became_slow() {
        Replica slow = sending().until(NOW.plusSeconds(30)).at(100);
        assertThat(slow.until(NOW.plusSeconds(40)).sentBytes()).isEqualTo(31_000);
        assertThat(slow.arrival()).contains(NOW.plusSeconds(30 + 300));
        assertThat(slow.at(0).arrival()).isEmpty();
        assertThat(slow.at(0).until(NOW.plusSeconds(4_000)).sentBytes()).isEqualTo(30_000);
    }

    @Test
    void a_state_lasts_until_it_is_another() {
        Replica behind = sending().in(State.BEHIND, "slow", NOW.plusSeconds(5));
        assertThat(behind.since()).isEqualTo(NOW.plusSeconds(5));
        assertThat(behind.in(State.BEHIND, "slower", NOW.plusSeconds(9)).since())
                .isEqualTo(NOW.plusSeconds(5));
        assertThat(behind.in(State.BEHIND, "slower", NOW.plusSeconds(9)).cause())
                .isEqualTo("slower");
        assertThat(behind.in(State.PAUSED, "by hand", NOW.plusSeconds(9)).since())
                .isEqualTo(NOW.plusSeconds(9));
    }

    @Test
    void lag_is_drawn_from_its_first_moment_to_now() {
        List<ReplicaStore.Event> events = List.of(
                new ReplicaStore.Event(NOW, State.BEHIND, "", 0, 0),
                new ReplicaStore.Event(NOW.plus(Duration.ofHours(5)), State.BEHIND, "", 18_000, 5),
                new ReplicaStore.Event(NOW.plus(Duration.ofHours(10)), State.IN_STEP, "", 0, 0));
        LagPicture picture = LagPicture.of(events, true, NOW.plus(Duration.ofHours(20)));
        assertThat(picture.points()).isEqualTo("0.0,120.0 180.0,60.0 180.0,60.0 360.0,0.0 360.0,120.0 720.0,120.0");
        assertThat(picture.most()).isEqualTo(10);
        assertThat(LagPicture.of(events, false, NOW.plus(Duration.ofHours(20))).points())
                .as("by interval what it has grows older")
                .endsWith("360.0,120.0 720.0,0.0");
        LagPicture one = LagPicture.of(events.subList(0, 1), false, NOW);
        assertThat(one.points()).isEqualTo("0.0,120.0 0.0,120.0");
    }
}
