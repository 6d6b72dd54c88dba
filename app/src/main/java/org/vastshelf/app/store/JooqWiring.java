package org.vastshelf.app.store;

import org.springframework.boot.jooq.autoconfigure.DefaultConfigurationCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** How statements are made. */
@Configuration
class JooqWiring {

    /**
     * The connection is to the one schema there is, lists of several lengths share a prepared statement, and nothing is
     * asked for that nobody reads.
     */
    @Bean
    DefaultConfigurationCustomizer lean() {
        return configuration -> configuration
                .settings()
                .withInListPadding(true)
                .withRenderSchema(false)
                .withExecuteLogging(false)
                .withFetchWarnings(false);
    }
}
