package org.vastshelf.app.frame;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.util.WebUtils;

/** The theme of whoever used this browser last, for pages that are shown before anybody is known, or after a failure. */
@Configuration
public class ThemeCookie implements WebMvcConfigurer, HandlerInterceptor {

    private static final String NAME = "vastshelf-theme";
    private static final List<String> THEMES = List.of("light", "dark");

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this);
    }

    @Override
    public void postHandle(
            HttpServletRequest request, HttpServletResponse response, Object handler, @Nullable ModelAndView page) {
        if (page != null && !page.getModel().containsKey("theme")) {
            show(request, page);
        }
    }

    static void show(HttpServletRequest request, ModelAndView page) {
        of(request).ifPresent(theme -> page.addObject("theme", theme));
    }

    private static Optional<String> of(HttpServletRequest request) {
        return Optional.ofNullable(WebUtils.getCookie(request, NAME))
                .map(jakarta.servlet.http.Cookie::getValue)
                .filter(THEMES::contains);
    }

    /** Remembers a theme in the browser, unless it does so already. */
    static void keep(String theme, HttpServletRequest request, HttpServletResponse response) {
        if (of(request).filter(theme::equals).isEmpty()) {
            response.addHeader(
                    HttpHeaders.SET_COOKIE,
                    ResponseCookie.from(NAME, theme)
                            .path("/")
                            .httpOnly(true)
                            .sameSite("Lax")
                            .maxAge(Duration.ofDays(365))
                            .build()
                            .toString());
        }
    }
}
