package org.vastshelf.app.kit;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;
import org.springframework.web.context.request.ServletWebRequest;
import org.vastshelf.app.store.Digests;

/** Tells browsers that what they have is what they would get (RFC 9110, section 8.8.3). */
public final class Unchanged {

    private Unchanged() {}

    /**
     * Notes what the answer depends on.
     *
     * @return true when the browser has it already, and was told so
     */
    public static boolean since(ServletWebRequest request, Object... dependsOn) {
        if (request.getResponse() != null) {
            request.getResponse().setHeader("Cache-Control", "private, no-cache");
        }
        byte[] digest = Digests.sixteen(Arrays.deepToString(dependsOn).getBytes(StandardCharsets.UTF_8));
        return request.checkNotModified("\"" + HexFormat.of().formatHex(digest) + "\"");
    }
}
