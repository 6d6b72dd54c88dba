package org.vastshelf.app.frame;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.vastshelf.app.store.Reading;

/** Figures of one answer are of one moment; what changes something reads as it goes. */
@Component
class OneReading extends OncePerRequestFilter {

    private final Reading reading;

    OneReading(Reading reading) {
        this.reading = reading;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (request.getMethod().equals("GET")) {
            reading.<ServletException, IOException>during(() -> chain.doFilter(request, response));
        } else {
            chain.doFilter(request, response);
        }
    }
}
