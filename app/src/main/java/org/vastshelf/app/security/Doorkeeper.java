package org.vastshelf.app.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.net.URI;
import java.util.Optional;
import java.util.Set;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.session.web.http.SessionRepositoryFilter;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Stands before everything that reads a request, right behind what knows sessions. A body beyond its bound, or a file from somebody who has not signed
 * in, is refused before a byte of it is kept; so is a call of the API with which another site's page uses the
 * credentials that the browser has for this one.
 */
@Component
@Order(SessionRepositoryFilter.DEFAULT_ORDER + 1)
class Doorkeeper extends OncePerRequestFilter {

    static final long MOST = 2L << 20;
    static final long MOST_FOR_FILES = 260L << 20;

    private static final Set<String> WITH_FILES =
            Set.of("/desk/save", "/build/definitions/import", "/look/folders/import");
    private static final Set<String> OURS = Set.of("same-origin", "none");

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        long bound = bound(request);
        if (request.getContentLengthLong() > bound) {
            refuse(
                    response,
                    HttpStatus.CONTENT_TOO_LARGE,
                    "the body has " + request.getContentLengthLong() + " bytes, must be at most " + bound);
        } else if (isMultipart(request) && !isSignedIn(request)) {
            refuse(response, HttpStatus.FORBIDDEN, "files are taken from people who signed in only");
        } else if (isMultipart(request) && !request.getContentType().contains("boundary=")) {
            refuse(response, HttpStatus.BAD_REQUEST, "the body is said to have parts and names no boundary");
        } else if (request.getRequestURI().startsWith("/api/") && isFromElsewhere(request)) {
            refuse(response, HttpStatus.FORBIDDEN, "the API takes no calls from pages of other origins");
        } else {
            chain.doFilter(new Bounded(request, bound), response);
        }
    }

    private static long bound(HttpServletRequest request) {
        String path = request.getRequestURI();
        boolean table = path.startsWith("/api/v1/catalogues/") && path.endsWith("/files.csv");
        return table || isMultipart(request) && WITH_FILES.contains(path) ? MOST_FOR_FILES : MOST;
    }

    private static boolean isMultipart(HttpServletRequest request) {
        String type = request.getContentType();
        return type != null && type.toLowerCase(java.util.Locale.ROOT).startsWith("multipart/");
    }

    private static boolean isSignedIn(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        return session != null
                && session.getAttribute(HttpSessionSecurityContextRepository.SPRING_SECURITY_CONTEXT_KEY) != null;
    }

    private static boolean isFromElsewhere(HttpServletRequest request) {
        String site = request.getHeader("Sec-Fetch-Site");
        String origin = request.getHeader("Origin");
        return site != null && !OURS.contains(site) || origin != null && !isHere(origin, request.getHeader("Host"));
    }

    private static boolean isHere(String origin, String host) {
        try {
            return Optional.ofNullable(URI.create(origin).getAuthority())
                    .filter(authority -> authority.equalsIgnoreCase(host))
                    .isPresent();
        } catch (IllegalArgumentException none) {
            return false;
        }
    }

    private static void refuse(HttpServletResponse response, HttpStatus status, String detail) throws IOException {
        response.setStatus(status.value());
        response.setHeader("Connection", "close");
        response.setContentType("application/problem+json");
        response.getWriter()
                .write("{\"title\":\"" + status.getReasonPhrase() + "\",\"status\":" + status.value() + ",\"detail\":\""
                        + detail + "\"}");
    }

    /** A request whose length nobody told: reading ends with an error at the bound. */
    private static final class Bounded extends HttpServletRequestWrapper {
        private final long bound;

        private Bounded(HttpServletRequest request, long bound) {
            super(request);
            this.bound = bound;
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            ServletInputStream in = super.getInputStream();
            return getContentLengthLong() >= 0 ? in : new BoundedStream(in, bound);
        }
    }

    private static final class BoundedStream extends ServletInputStream {
        private final ServletInputStream in;
        private long left;

        private BoundedStream(ServletInputStream in, long bound) {
            this.in = in;
            this.left = bound;
        }

        @Override
        public int read() throws IOException {
            int read = in.read();
            count(read < 0 ? 0 : 1);
            return read;
        }

        @Override
        public int read(byte[] bytes, int from, int length) throws IOException {
            int read = in.read(bytes, from, length);
            count(Math.max(0, read));
            return read;
        }

        private void count(int read) throws IOException {
            left -= read;
            if (left < 0) {
                throw new IOException("the body is longer than it may be");
            }
        }

        @Override
        public boolean isFinished() {
            return in.isFinished();
        }

        @Override
        public boolean isReady() {
            return in.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            in.setReadListener(listener);
        }
    }
}
