package org.vastshelf.app.directory;

import com.unboundid.ldap.sdk.LDAPException;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BooleanSupplier;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.standins.directory.EmbeddedDirectory;
import org.vastshelf.standins.directory.LargePeople;

/** The directory named in the settings, or the embedded one. */
@Configuration
class DirectoryWiring {

    /**
     * An embedded directory, if one was needed.
     *
     * @param changes says whether people came or went since it was asked last
     */
    record Embedded(String url, AutoCloseable server, BooleanSupplier changes) implements AutoCloseable {
        @Override
        public void close() throws Exception {
            server.close();
        }
    }

    @Bean
    Embedded embeddedDirectory(Settings settings, ShelfClock clock, HistoryStore histories) {
        String url = settings.directory().url();
        if (!url.isEmpty()) {
            return new Embedded(url, () -> {}, () -> false);
        }
        EmbeddedDirectory server = EmbeddedDirectory.start(settings.large() ? LargePeople.entries() : List.of());
        if (!settings.demo() || settings.large()) {
            return new Embedded(server.url(), server, () -> false);
        }
        AtomicReference<Instant> asked = new AtomicReference<>(Instant.MIN);
        // People come and go with the days that were lived through, not with a clock that has jumped ahead of them.
        // While
        // the clock stands at one moment, that is asked once.
        return new Embedded(
                server.url(),
                server,
                () -> server.isBehind(clock.today())
                        && !clock.instant().equals(asked.getAndSet(clock.instant()))
                        && server.advance(
                                histories.lastDay().map(day -> day.plusDays(1)).orElseGet(clock::today)));
    }

    @Bean(destroyMethod = "close")
    Directory directory(Embedded embedded, Settings settings) throws LDAPException {
        Settings.DirectorySettings ldap = settings.directory();
        return new LdapDirectory(embedded.url(), ldap.base(), ldap.bindDn(), ldap.bindPassword(), embedded.changes());
    }
}
