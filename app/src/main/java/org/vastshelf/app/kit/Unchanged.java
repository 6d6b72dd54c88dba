package org.vastshelf.app.kit;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.springframework.util.DigestUtils;
import org.springframework.web.context.request.ServletWebRequest;

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
        String digest =
                DigestUtils.md5DigestAsHex(Arrays.deepToString(dependsOn).getBytes(StandardCharsets.UTF_8));
        return request.checkNotModified("\"" + digest + "\"");
    }
}
