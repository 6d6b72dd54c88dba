package org.vastshelf.app.config;

import java.util.Optional;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.vastshelf.standins.mail.EmbeddedMail;

/** The mail server named in the settings, or the embedded one. */
@Configuration
public class MailWiring {

    /** The embedded mail server, if one was needed. */
    public record Embedded(Optional<EmbeddedMail> server) implements AutoCloseable {
        @Override
        public void close() {
            server.ifPresent(EmbeddedMail::close);
        }
    }

    @Bean
    Embedded embeddedMail(Settings settings) {
        return new Embedded(settings.mail().host().isEmpty() ? Optional.of(EmbeddedMail.start()) : Optional.empty());
    }

    @Bean
    JavaMailSender mailSender(Embedded embedded, Settings settings) {
        JavaMailSenderImpl sender = new JavaMailSenderImpl();
        sender.setHost(
                embedded.server().isPresent() ? "127.0.0.1" : settings.mail().host());
        sender.setPort(
                embedded.server().map(EmbeddedMail::port).orElse(settings.mail().port()));
        sender.setDefaultEncoding("UTF-8");
        sender.getJavaMailProperties().put("mail.smtp.connectiontimeout", "5000");
        sender.getJavaMailProperties().put("mail.smtp.timeout", "5000");
        return sender;
    }
}
