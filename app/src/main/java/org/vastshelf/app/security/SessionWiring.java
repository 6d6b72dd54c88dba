package org.vastshelf.app.security;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.convert.ConversionService;
import org.springframework.core.convert.converter.Converter;
import org.springframework.core.convert.support.GenericConversionService;
import org.springframework.core.serializer.support.DeserializingConverter;
import org.springframework.core.serializer.support.SerializationFailedException;
import org.springframework.core.serializer.support.SerializingConverter;
import org.springframework.session.config.SessionRepositoryCustomizer;
import org.springframework.session.jdbc.JdbcIndexedSessionRepository;
import org.springframework.session.jdbc.MySqlJdbcIndexedSessionRepositoryCustomizer;

/** Sessions in the database, so that any node knows who is signed in. */
@Configuration
class SessionWiring {

    private static final Logger LOG = LoggerFactory.getLogger(SessionWiring.class);

    /** Two requests of one session may set the same attribute at once. */
    @Bean
    SessionRepositoryCustomizer<JdbcIndexedSessionRepository> attributesAtOnce() {
        return new MySqlJdbcIndexedSessionRepositoryCustomizer();
    }

    /** What another version of the application put into a session is as good as not there: people sign in again. */
    @Bean
    ConversionService springSessionConversionService() {
        GenericConversionService conversion = new GenericConversionService();
        DeserializingConverter read = new DeserializingConverter(SessionWiring.class.getClassLoader());
        conversion.addConverter(Object.class, byte[].class, new SerializingConverter());
        conversion.addConverter(byte[].class, Object.class, (Converter<byte[], Object>) bytes -> {
            try {
                return read.convert(bytes);
            } catch (SerializationFailedException another) {
                LOG.info("a session of another version is left behind");
                return null;
            }
        });
        return conversion;
    }
}
