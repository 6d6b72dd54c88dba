package org.vastshelf.app.content;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import org.apache.tika.Tika;
import org.springframework.stereotype.Component;
import org.vastshelf.core.content.Contents;

/** Recognises what a file holds by its first bytes, whatever its name says. */
@Component
public class ContentKind {

    private static final String OPEN_XML = "application/x-tika-ooxml";
    private static final String AWAY = "not looked at: they lie in a cold store";
    private static final int LOOKED_AT = 1 << 16;

    private final Tika tika = new Tika();
    private final FileBytes bytes;

    ContentKind(FileBytes bytes) {
        this.bytes = bytes;
    }

    /**
     * What it is, without asking a cold store for it: the media type, as IANA registers them; for office documents of
     * which the first bytes tell no more, their family.
     */
    public String of(Contents contents) {
        if (contents.isCold()) {
            return AWAY;
        }
        try (InputStream in = bytes.open(contents, 0, Math.min(contents.length(), LOOKED_AT))) {
            String type = tika.detect(in.readAllBytes());
            return type.equals(OPEN_XML) ? "office document (Office Open XML)" : type;
        } catch (IOException e) {
            throw new UncheckedIOException("the file could not be read", e);
        }
    }
}
