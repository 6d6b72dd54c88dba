package org.vastshelf.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.failure.Extents;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.device.SimulatedExtents;

class SimulatedExtentsTest {

    private static final Map<String, Bytes> VOLUMES =
            Map.of("plans", Bytes.of(50), "film", Bytes.of(100), "empty", Bytes.ZERO);

    private final Extents extents = new SimulatedExtents();

    @Test
    void volumes_lie_one_after_the_other_by_name() {
        assertThat(extents.at(VOLUMES, 0)).contains(new Extents.Place("film", 0));
        assertThat(extents.at(VOLUMES, 99)).contains(new Extents.Place("film", 99));
        assertThat(extents.at(VOLUMES, 100)).contains(new Extents.Place("plans", 0));
        assertThat(extents.at(VOLUMES, 149)).contains(new Extents.Place("plans", 49));
    }

    @Test
    void behind_the_last_one_there_is_nothing() {
        assertThat(extents.at(VOLUMES, 150)).isEmpty();
        assertThat(extents.at(Map.of(), 0)).isEmpty();
    }
}
