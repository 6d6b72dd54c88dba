package org.vastshelf.app.config;

import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.vastshelf.core.change.Devices;
import org.vastshelf.core.content.FileStreams;
import org.vastshelf.core.estate.Rescan;
import org.vastshelf.core.failure.Extents;
import org.vastshelf.standins.content.GeneratedBytes;
import org.vastshelf.standins.device.SimulatedDevices;
import org.vastshelf.standins.device.SimulatedExtents;
import org.vastshelf.standins.scenario.DemoDock;

/** Puts the simulated file servers behind their ports. */
@Configuration
class StandinWiring {

    @Bean
    Devices devices(Settings settings) {
        return new SimulatedDevices(settings.data().resolve("devices.log"));
    }

    @Bean
    Extents extents() {
        return new SimulatedExtents();
    }

    @Bean
    FileStreams fileStreams() {
        return new GeneratedBytes();
    }

    @Bean
    Rescan rescan(Settings settings) {
        return server -> settings.demo() ? DemoDock.seenBy(server) : List.of();
    }
}
