package org.vastshelf.app.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.web.access.AccessDeniedHandler;
import org.springframework.security.web.servlet.util.matcher.PathPatternRequestMatcher;

/** Tells an address that is not for somebody's role from one that does not exist. */
final class Refusals implements AccessDeniedHandler {

    private final List<PathPatternRequestMatcher> known = Routes.all().stream()
            .map(route -> PathPatternRequestMatcher.withDefaults().matcher(route.pattern()))
            .toList();

    @Override
    public void handle(HttpServletRequest request, HttpServletResponse response, AccessDeniedException refused)
            throws IOException {
        boolean exists = known.stream().anyMatch(matcher -> matcher.matches(request));
        response.sendError(exists ? HttpServletResponse.SC_FORBIDDEN : HttpServletResponse.SC_NOT_FOUND);
    }
}
