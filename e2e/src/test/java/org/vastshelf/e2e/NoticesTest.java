package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.mail.internet.MimeMessage;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.config.MailWiring;

/** A level that is passed is told once, by real mail, to whoever passed it and to the administrators. */
class NoticesTest {

    private static void write(String path, long gibibytes) {
        App.Reply reply = App.post(
                "suki",
                "/api/v1/desk/operations",
                "{\"person\":\"suki\",\"share\":\"film\",\"operation\":\"WRITE\",\"path\":\"" + path + "\",\"bytes\":"
                        + (gibibytes << 30) + "}");
        assertThat(reply.json().path("allowed").asBoolean()).as(reply.text()).isTrue();
    }

    private static List<MimeMessage> mails() {
        return App.bean(MailWiring.Embedded.class).server().orElseThrow().received().stream()
                .filter(NoticesTest::isOurs)
                .toList();
    }

    private static boolean isOurs(MimeMessage message) {
        try {
            return message.getSubject().contains("/notice-test");
        } catch (jakarta.mail.MessagingException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void passing_a_warn_level_is_mailed_once() throws Exception {
        long order = App.post(
                        "odile",
                        "/api/v1/orders",
                        "{\"changes\":[{\"change\":\"SetLimit\",\"rule\":{\"share\":\"film\",\"path\":\"/notice-test\","
                                + "\"eachChild\":false,\"warnAt\":5368709120,\"graceAt\":null,\"graceTime\":\"PT24H\","
                                + "\"stopAt\":null}}]}")
                .json()
                .path("order")
                .path("id")
                .asLong();
        App.post("odile", "/api/v1/orders/" + order + "/carry-out", "");
        App.post("odile", "/api/v1/time", "{\"hours\":1}");
        write("/notice-test/a.mov", 4);
        write("/notice-test/b.mov", 2);
        write("/notice-test/c.mov", 1);
        Instant patience = Instant.now().plus(Duration.ofSeconds(20));
        while (mails().size() < 2 && Instant.now().isBefore(patience)) {
            Thread.sleep(200);
        }
        assertThat(mails()).hasSize(2);
        assertThat(mails().getFirst().getSubject()).isEqualTo("Warn of film/notice-test was passed");
        assertThat(mails().stream().map(NoticesTest::recipient))
                .containsExactlyInAnyOrder("suki@larkmoor.example", "odile@larkmoor.example");
        assertThat(String.valueOf(mails().getFirst().getContent()))
                .contains("It holds 6.00 GiB; the level is 5.00 GiB. Nothing is refused yet.");
        assertThat(App.get("ines", "/api/v1/notices")
                        .json()
                        .path("items")
                        .get(0)
                        .path("recipient"))
                .isNotNull();
    }

    private static String recipient(MimeMessage message) {
        try {
            return message.getAllRecipients()[0].toString();
        } catch (jakarta.mail.MessagingException e) {
            throw new IllegalStateException(e);
        }
    }
}
