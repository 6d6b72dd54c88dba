package org.vastshelf.app.frame;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Map;
import org.springframework.boot.webmvc.autoconfigure.error.ErrorViewResolver;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.ModelAndView;

/** Pages of failures that no controller met: what happened, and whether anything was changed. */
@Component
class ErrorPages implements ErrorViewResolver {

    @Override
    public ModelAndView resolveErrorView(HttpServletRequest request, HttpStatus status, Map<String, Object> model) {
        return switch (status) {
            case FORBIDDEN -> page(status, "Not for your role", "Your role may not do this; nothing was changed.");
            case NOT_FOUND -> page(status, "There is no such page", "Nothing is kept under this address.");
            default -> page(status, "Something went wrong", "Nothing was changed; the log says more.");
        };
    }

    private static ModelAndView page(HttpStatus status, String title, String lead) {
        return new ModelAndView("error", Map.of("title", title, "lead", lead), status);
    }
}
