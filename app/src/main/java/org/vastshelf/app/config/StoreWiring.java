package org.vastshelf.app.config;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.core.tier.StoreBench;
import org.vastshelf.core.tier.StoreMood;
import org.vastshelf.standins.store.EmbeddedStore;

/** Serves the embedded object store of the demo. Of several nodes one does, and another takes over when it is gone. */
@Component
class StoreWiring implements StoreBench {

    private static final Logger LOG = LoggerFactory.getLogger(StoreWiring.class);

    private final boolean wanted;
    private final Path folder;
    private @Nullable EmbeddedStore served;

    StoreWiring(Settings settings) {
        this.wanted = settings.demo();
        this.folder = settings.storeFolder();
        serve();
    }

    @Scheduled(fixedDelay = 2_000)
    synchronized void serve() {
        if (!wanted || served != null) {
            return;
        }
        try {
            served = EmbeddedStore.start(folder).orElse(null);
        } catch (IOException failed) {
            LOG.warn("the embedded object store can't be served: {}", failed.getMessage());
        }
    }

    @PreDestroy
    synchronized void close() throws IOException {
        if (served != null) {
            served.close();
        }
    }

    @Override
    public Optional<String> endpoint() {
        try {
            return wanted ? EmbeddedStore.port(folder).map(port -> "http://127.0.0.1:" + port) : Optional.empty();
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    @Override
    public StoreMood mood() {
        try {
            return EmbeddedStore.mood(folder);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    @Override
    public void set(StoreMood mood) {
        try {
            EmbeddedStore.mood(folder, mood);
        } catch (IOException full) {
            throw new UncheckedIOException("the mood could not be written down", full);
        }
    }
}
