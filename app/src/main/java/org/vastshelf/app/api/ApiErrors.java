package org.vastshelf.app.api;

import java.util.Arrays;
import java.util.Collection;
import java.util.stream.Collectors;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.road.ChangedMeanwhile;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.store.EstateStore;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.exc.InvalidFormatException;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;

/** Turns what was refused into problem details (RFC 9457). */
@RestControllerAdvice(basePackageClasses = ApiErrors.class)
@Order(Ordered.HIGHEST_PRECEDENCE)
class ApiErrors {

    @ExceptionHandler({IllegalArgumentException.class, ArithmeticException.class})
    ProblemDetail refused(RuntimeException refused) {
        return problem(HttpStatus.BAD_REQUEST, refused);
    }

    /** What hardware can't do without leaving a state that must not be. */
    @ExceptionHandler(EstateStore.NotWhole.class)
    ProblemDetail notWhole(EstateStore.NotWhole refused) {
        return problem(HttpStatus.CONFLICT, refused);
    }

    @ExceptionHandler({OrderService.NotReady.class, Taken.class, ChangedMeanwhile.class})
    ProblemDetail notReady(RuntimeException refused) {
        return problem(HttpStatus.CONFLICT, refused);
    }

    @ExceptionHandler({NotThere.class, OrderService.NoSuchOrder.class, NotFound.class})
    ProblemDetail missing(RuntimeException missing) {
        return problem(HttpStatus.NOT_FOUND, missing);
    }

    /** What lies in a cold store that does not give it. */
    @ExceptionHandler(FarAway.class)
    ProblemDetail away(FarAway away) {
        return problem(HttpStatus.SERVICE_UNAVAILABLE, away);
    }

    @ExceptionHandler(AccessDeniedException.class)
    ProblemDetail forbidden(AccessDeniedException refused) {
        return problem(HttpStatus.FORBIDDEN, refused);
    }

    /** Core's message where the JSON led to an impossible value, the parser's where it is none. */
    @ExceptionHandler(HttpMessageNotReadableException.class)
    ProblemDetail unreadable(HttpMessageNotReadableException refused) {
        Throwable cause = refused;
        String where = "the request";
        while (cause.getCause() != null && !(cause instanceof IllegalArgumentException)) {
            cause = cause.getCause();
            where = cause instanceof DatabindException at && !at.getPath().isEmpty() ? field(at) : where;
        }
        if (cause instanceof NullPointerException) {
            return ProblemDetail.forStatusAndDetail(
                    HttpStatus.BAD_REQUEST, where + " lacks a member that is needed; the OpenAPI document names them");
        }
        if (cause instanceof InvalidFormatException wrong) {
            return ProblemDetail.forStatusAndDetail(
                    HttpStatus.BAD_REQUEST,
                    field(wrong) + " is '" + shorten(String.valueOf(wrong.getValue())) + "', must be "
                            + wanted(wrong.getTargetType()));
        }
        if (cause instanceof UnrecognizedPropertyException unknown) {
            return ProblemDetail.forStatusAndDetail(
                    HttpStatus.BAD_REQUEST, field(unknown) + " is no part of it; the OpenAPI document names all");
        }
        if (cause instanceof MismatchedInputException wrong && wrong.getTargetType() != null) {
            boolean missing = String.valueOf(wrong.getOriginalMessage()).startsWith("Cannot map `null`");
            return ProblemDetail.forStatusAndDetail(
                    HttpStatus.BAD_REQUEST,
                    (wrong.getPath().isEmpty() ? "the body" : field(wrong))
                            + (missing ? " is missing or null, must be " : " is of another kind, must be ")
                            + wanted(wrong.getTargetType()));
        }
        String message = String.valueOf(cause.getMessage());
        int source = message.indexOf("\n at [Source");
        return ProblemDetail.forStatusAndDetail(
                HttpStatus.BAD_REQUEST, source < 0 ? message : message.substring(0, source));
    }

    /** What stands for a type in JSON, in words. */
    private static String wanted(Class<?> type) {
        if (type.isEnum()) {
            return "one of "
                    + Arrays.stream(type.getEnumConstants())
                            .map(String::valueOf)
                            .collect(Collectors.joining(", "));
        }
        if (type == boolean.class || type == Boolean.class) {
            return "true or false";
        }
        if (type.isPrimitive() || Number.class.isAssignableFrom(type)) {
            return "a number";
        }
        return type == String.class ? "text" : Collection.class.isAssignableFrom(type) ? "a list" : "an object";
    }

    /** Such as {@code drives[0].bytes}. */
    private static String field(DatabindException wrong) {
        StringBuilder path = new StringBuilder();
        wrong.getPath().forEach(step -> {
            if (step.getPropertyName() == null) {
                path.append('[').append(step.getIndex()).append(']');
            } else {
                path.append(path.isEmpty() ? "" : ".").append(step.getPropertyName());
            }
        });
        return path.toString();
    }

    private static String shorten(String text) {
        return text.length() <= 60 ? text : text.substring(0, 60) + "…";
    }

    @ExceptionHandler(MethodArgumentTypeMismatchException.class)
    ProblemDetail wrongParameter(MethodArgumentTypeMismatchException refused) {
        return ProblemDetail.forStatusAndDetail(
                HttpStatus.BAD_REQUEST, refused.getName() + " is '" + refused.getValue() + "', must be a number");
    }

    private static ProblemDetail problem(HttpStatus status, RuntimeException refused) {
        return ProblemDetail.forStatusAndDetail(status, String.valueOf(refused.getMessage()));
    }
}
