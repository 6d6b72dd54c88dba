package org.vastshelf.app.kit;

import java.util.Arrays;
import java.util.Locale;
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
        long first = Arrays.deepHashCode(dependsOn);
        long second = Arrays.asList(dependsOn).toString().hashCode();
        return request.checkNotModified(
                String.format(Locale.ROOT, "\"%08x%08x\"", first & 0xffffffffL, second & 0xffffffffL));
    }
}
