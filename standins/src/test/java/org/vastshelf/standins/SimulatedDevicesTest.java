package org.vastshelf.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.vastshelf.core.change.PoolStep;
import org.vastshelf.core.change.Step;
import org.vastshelf.standins.device.SimulatedDevices;

class SimulatedDevicesTest {

    private static final Instant START = Instant.parse("2026-03-02T08:00:00Z");
    private static final Step STEP = new PoolStep.CheckSurfaces(List.of(), Duration.ofHours(19));

    @TempDir
    Path folder;

    @Test
    void the_same_key_is_the_same_work_also_after_a_restart() {
        Path log = folder.resolve("devices.log");
        Instant end = new SimulatedDevices(log).begin("a", STEP, START);
        SimulatedDevices again = new SimulatedDevices(log);
        assertThat(again.endOf("a")).contains(START.plus(Duration.ofHours(19)));
        assertThat(again.begin("a", STEP, START.plusSeconds(500))).isEqualTo(end);
    }

    @Test
    void work_taken_back_is_forgotten_for_good() {
        Path log = folder.resolve("devices.log");
        SimulatedDevices devices = new SimulatedDevices(log);
        devices.begin("a", STEP, START);
        devices.takeBack("a");
        assertThat(devices.endOf("a")).isEmpty();
        assertThat(new SimulatedDevices(log).endOf("a")).isEmpty();
    }

    @Test
    void a_rest_moves_the_end_also_after_a_restart() {
        Path log = folder.resolve("devices.log");
        SimulatedDevices devices = new SimulatedDevices(log);
        Instant end = devices.begin("a", STEP, START);
        devices.delay("a", Duration.ofHours(3));
        devices.delay("never-begun", Duration.ofHours(3));
        assertThat(devices.endOf("a")).contains(end.plus(Duration.ofHours(3)));
        assertThat(devices.endOf("never-begun")).isEmpty();
        assertThat(new SimulatedDevices(log).begin("a", STEP, START)).isEqualTo(end.plus(Duration.ofHours(3)));
    }

    @Test
    void two_nodes_see_the_same_work() {
        Path log = folder.resolve("devices.log");
        SimulatedDevices one = new SimulatedDevices(log);
        SimulatedDevices other = new SimulatedDevices(log);
        Instant end = one.begin("a", STEP, START);
        other.delay("a", Duration.ofHours(2));
        assertThat(one.endOf("a")).contains(end.plus(Duration.ofHours(2)));
        other.takeBack("a");
        assertThat(one.endOf("a")).isEmpty();
    }

    @Test
    void the_oldest_are_forgotten_and_a_cut_line_is_begun_again() throws IOException {
        Path log = folder.resolve("devices.log");
        SimulatedDevices devices = new SimulatedDevices(log);
        for (int i = 0; i < 2_010; i++) {
            devices.begin("key-" + i, STEP, START);
        }
        assertThat(devices.endOf("key-9")).isEmpty();
        assertThat(devices.endOf("key-10")).isPresent();
        assertThat(Files.readAllLines(log)).hasSize(2_000);
        Files.writeString(log, "whole 2026-03-02T08:00:00Z\ncut 2026-03-0");
        assertThat(devices.endOf("whole")).isPresent();
        assertThat(devices.endOf("cut")).isEmpty();
    }
}
