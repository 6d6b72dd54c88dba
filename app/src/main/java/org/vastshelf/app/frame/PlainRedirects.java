package org.vastshelf.app.frame;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.View;
import org.springframework.web.servlet.ViewResolver;
import org.springframework.web.servlet.view.RedirectView;

/**
 * Redirects to exactly the address that a controller names. Names that people typed are part of some: braces are no
 * templates there, and nothing that could end a header line gets through.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class PlainRedirects implements ViewResolver, Ordered {

    private static final String PREFIX = "redirect:";
    private static final String PLAIN = "!#$%&'()*+,-./:;=?@_~";

    @Override
    public @Nullable View resolveViewName(String name, Locale locale) {
        return name.startsWith(PREFIX)
                ? new RedirectView(plain(name.substring(PREFIX.length())), true, true, false)
                : null;
    }

    static String plain(String address) {
        StringBuilder plain = new StringBuilder();
        for (byte b : address.getBytes(StandardCharsets.UTF_8)) {
            char c = (char) (b & 0xff);
            boolean letter = c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9';
            if (letter || PLAIN.indexOf(c) >= 0) {
                plain.append(c);
            } else {
                plain.append(String.format("%%%02X", (int) c));
            }
        }
        return plain.toString();
    }

    @Override
    public int getOrder() {
        return Ordered.HIGHEST_PRECEDENCE;
    }
}
