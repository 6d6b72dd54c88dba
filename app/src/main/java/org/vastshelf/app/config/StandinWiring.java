package org.vastshelf.app.config;

import java.io.InputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.vastshelf.app.desk.Contents;
import org.vastshelf.core.change.Devices;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Rescan;
import org.vastshelf.core.failure.Extents;
import org.vastshelf.standins.device.SimulatedDevices;
import org.vastshelf.standins.device.SimulatedExtents;
import org.vastshelf.standins.files.StoredContents;
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
    Rescan rescan(Settings settings) {
        return server -> settings.demo() ? DemoDock.seenBy(server) : List.of();
    }

    @Bean
    Contents contents(Settings settings) {
        StoredContents stored = new StoredContents(settings.data().resolve("contents"));
        return new Contents() {
            @Override
            public void keep(String share, FilePath path, InputStream contents) {
                stored.keep(share, path.text(), contents);
            }

            @Override
            public Optional<Path> find(String share, FilePath path, long bytes) {
                return stored.find(share, path.text(), bytes);
            }

            @Override
            public void remove(String share, FilePath path) {
                stored.remove(share, path.text());
            }
        };
    }
}
