package org.vastshelf.app.directory;

import com.unboundid.ldap.sdk.LDAPException;
import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.vastshelf.app.config.Settings;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.standins.directory.EmbeddedDirectory;
import org.vastshelf.standins.directory.LargePeople;

/** The directory named in the settings, or the embedded one. */
@Configuration
class DirectoryWiring {

    /** An embedded directory, if one was needed. */
    record Embedded(String url, AutoCloseable server) implements AutoCloseable {
        @Override
        public void close() throws Exception {
            server.close();
        }
    }

    @Bean
    Embedded embeddedDirectory(Settings settings) {
        String url = settings.directory().url();
        if (!url.isEmpty()) {
            return new Embedded(url, () -> {});
        }
        EmbeddedDirectory server = EmbeddedDirectory.start(settings.large() ? LargePeople.entries() : List.of());
        return new Embedded(server.url(), server);
    }

    @Bean(destroyMethod = "close")
    Directory directory(Embedded embedded, Settings settings) throws LDAPException {
        Settings.DirectorySettings ldap = settings.directory();
        return new LdapDirectory(embedded.url(), ldap.base(), ldap.bindDn(), ldap.bindPassword());
    }
}
