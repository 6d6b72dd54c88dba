package org.vastshelf.standins.mail;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.internet.MimeMessage;
import java.util.List;

/** An SMTP server on loopback that takes every message and keeps it until it is closed. */
public final class EmbeddedMail implements AutoCloseable {

    private final GreenMail server = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));

    private EmbeddedMail() {
        server.start();
    }

    /** Starts on a free port. */
    public static EmbeddedMail start() {
        return new EmbeddedMail();
    }

    public int port() {
        return server.getSmtp().getPort();
    }

    public List<MimeMessage> received() {
        return List.of(server.getReceivedMessages());
    }

    @Override
    public void close() {
        server.stop();
    }
}
