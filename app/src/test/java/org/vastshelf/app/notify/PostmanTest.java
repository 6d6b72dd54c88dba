package org.vastshelf.app.notify;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.springframework.mail.MailSendException;
import org.springframework.mail.SimpleMailMessage;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.transaction.PlatformTransactionManager;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Person;

class PostmanTest {

    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");

    private final NoticeStore notices = mock(NoticeStore.class);
    private final JavaMailSender mail = mock(JavaMailSender.class);
    private final Directory directory = mock(Directory.class);
    private Postman postman;

    private static NoticeStore.Notice notice(long id, String to) {
        return new NoticeStore.Notice(id, NOW.minusSeconds(60), to, "Volume film grows", "By its rule.", null, "");
    }

    @BeforeEach
    void wire() {
        ShelfClock clock = mock(ShelfClock.class);
        when(clock.instant()).thenReturn(NOW);
        when(directory.person("odile"))
                .thenReturn(Optional.of(new Person("odile", "Odile Fenn", "odile@larkmoor.example", Set.of())));
        Settings settings = new Settings(
                true,
                false,
                true,
                Path.of("."),
                List.of(),
                30,
                Settings.HoldRelease.BOTH_ROLES,
                "",
                "EUR",
                500,
                null,
                new Settings.MailSettings("", 25, "shelf@example"));
        postman = new Postman(
                notices, mail, directory, settings, clock, new Transactions(mock(PlatformTransactionManager.class)));
    }

    @Test
    void a_notice_becomes_a_message_and_is_marked_sent() {
        when(notices.claim(any())).thenReturn(Optional.of(notice(7, "odile")), Optional.empty());
        postman.deliver();
        ArgumentCaptor<SimpleMailMessage> sent = ArgumentCaptor.forClass(SimpleMailMessage.class);
        verify(mail).send(sent.capture());
        assertThat(sent.getValue().getTo()).containsExactly("odile@larkmoor.example");
        assertThat(sent.getValue().getFrom()).isEqualTo("shelf@example");
        assertThat(sent.getValue().getSubject()).isEqualTo("Volume film grows");
        assertThat(sent.getValue().getSentDate()).isEqualTo(NOW.minusSeconds(60));
        verify(notices).sent(7, NOW);
    }

    @Test
    void what_the_server_does_not_take_waits_and_holds_nothing_up() {
        when(notices.claim(any()))
                .thenReturn(Optional.of(notice(7, "odile")), Optional.of(notice(8, "odile")), Optional.empty());
        doThrow(new MailSendException("address refused")).doNothing().when(mail).send(any(SimpleMailMessage.class));
        postman.deliver();
        verify(notices).failed(7, "address refused", NOW);
        verify(notices, never()).sent(7, NOW);
        verify(notices).sent(8, NOW);
    }

    @Test
    void somebody_without_an_address_is_given_up() {
        when(notices.claim(any()))
                .thenReturn(Optional.of(notice(6, "ghost")), Optional.of(notice(7, "odile")), Optional.empty());
        postman.deliver();
        verify(notices).givenUp(6, "the directory has no mail address for ghost");
        verify(notices).sent(7, NOW);
    }
}
