package org.vastshelf.app.api;

import java.lang.reflect.Type;
import org.jspecify.annotations.Nullable;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;
import org.vastshelf.app.config.Whole;

/** Checks every body when it is read, before anything is kept of it. */
@ControllerAdvice(basePackageClasses = WholeBodies.class)
class WholeBodies extends RequestBodyAdviceAdapter {

    @Override
    public boolean supports(MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        return true;
    }

    @Override
    public Object afterBodyRead(
            @Nullable Object body,
            HttpInputMessage message,
            MethodParameter parameter,
            Type type,
            Class<? extends HttpMessageConverter<?>> converter) {
        if (body == null) {
            throw new IllegalArgumentException("the body is null, must be a JSON object");
        }
        return Whole.require(body);
    }

    @Override
    public @Nullable Object handleEmptyBody(
            @Nullable Object body,
            HttpInputMessage message,
            MethodParameter parameter,
            Type type,
            Class<? extends HttpMessageConverter<?>> converter) {
        throw new IllegalArgumentException("the request has no body, must be JSON");
    }
}
