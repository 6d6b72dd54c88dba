package org.vastshelf.app.notify;

import java.time.Instant;
import java.util.Date;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.mail.MailException;
import org.springframework.mail.SimpleMailMessage;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Person;

/** Hands notices to the mail server; what it does not take is tried again, and says why meanwhile. */
@Component
class Postman {

    private static final Logger LOG = LoggerFactory.getLogger(Postman.class);
    private static final int AT_ONCE = 50;

    private final NoticeStore notices;
    private final JavaMailSender mail;
    private final Directory directory;
    private final Settings settings;
    private final ShelfClock clock;
    private final Transactions transactions;

    Postman(
            NoticeStore notices,
            JavaMailSender mail,
            Directory directory,
            Settings settings,
            ShelfClock clock,
            Transactions transactions) {
        this.transactions = transactions;
        this.notices = notices;
        this.mail = mail;
        this.directory = directory;
        this.settings = settings;
        this.clock = clock;
    }

    @Scheduled(fixedDelay = 3_000, initialDelay = 3_000)
    void deliver() {
        Instant now = clock.instant();
        for (int i = 0; i < AT_ONCE && transactions.run(() -> deliverOne(now)); i++) {
            LOG.debug("a notice was delivered, or waits");
        }
    }

    /** On one node only; false when there is none left. */
    private boolean deliverOne(Instant now) {
        Optional<NoticeStore.Notice> claimed = notices.claim(now);
        claimed.ifPresent(notice -> {
            String address =
                    directory.person(notice.recipient()).map(Person::mail).orElse("");
            if (address.isEmpty()) {
                notices.givenUp(notice.id(), "the directory has no mail address for " + notice.recipient());
            } else {
                send(notice, address);
            }
        });
        return claimed.isPresent();
    }

    /** One that the server does not take waits by itself; the others are tried all the same. */
    private void send(NoticeStore.Notice notice, String address) {
        try {
            mail.send(message(notice, address));
            notices.sent(notice.id(), clock.instant());
        } catch (MailException refused) {
            LOG.warn("notice {} was not taken: {}", notice.id(), refused.getMessage());
            notices.failed(notice.id(), String.valueOf(refused.getMessage()), clock.instant());
        }
    }

    private SimpleMailMessage message(NoticeStore.Notice notice, String address) {
        SimpleMailMessage message = new SimpleMailMessage();
        message.setFrom(settings.mail().from());
        message.setTo(address);
        message.setSubject(notice.subject());
        message.setText(notice.body());
        message.setSentDate(Date.from(notice.at()));
        return message;
    }
}
