package org.vastshelf.app.config;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.vastshelf.core.change.Devices;
import org.vastshelf.standins.device.SimulatedDevices;

/** Puts the simulated file servers behind core's port. */
@Configuration
class StandinWiring {

    @Bean
    Devices devices(Settings settings) {
        return new SimulatedDevices(settings.data().resolve("devices.log"));
    }
}
