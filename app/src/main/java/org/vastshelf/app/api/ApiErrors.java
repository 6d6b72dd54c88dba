package org.vastshelf.app.api;

import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.vastshelf.app.desk.DeskService;
import org.vastshelf.app.frame.NotFound;
import org.vastshelf.app.orders.OrderService;

/** Turns what was refused into problem details (RFC 9457). */
@RestControllerAdvice(basePackageClasses = ApiErrors.class)
@Order(Ordered.HIGHEST_PRECEDENCE)
class ApiErrors {

    @ExceptionHandler({IllegalArgumentException.class, ArithmeticException.class})
    ProblemDetail refused(RuntimeException refused) {
        return problem(HttpStatus.BAD_REQUEST, refused);
    }

    @ExceptionHandler(OrderService.NotReady.class)
    ProblemDetail notReady(OrderService.NotReady refused) {
        return problem(HttpStatus.CONFLICT, refused);
    }

    @ExceptionHandler({DeskService.NotThere.class, OrderService.NoSuchOrder.class, NotFound.class})
    ProblemDetail missing(RuntimeException missing) {
        return problem(HttpStatus.NOT_FOUND, missing);
    }

    @ExceptionHandler(AccessDeniedException.class)
    ProblemDetail forbidden(AccessDeniedException refused) {
        return problem(HttpStatus.FORBIDDEN, refused);
    }

    /** Core's message where the JSON led to an impossible value, the parser's where it is none. */
    @ExceptionHandler(HttpMessageNotReadableException.class)
    ProblemDetail unreadable(HttpMessageNotReadableException refused) {
        Throwable cause = refused;
        while (cause.getCause() != null && !(cause instanceof IllegalArgumentException)) {
            cause = cause.getCause();
        }
        String message = String.valueOf(cause.getMessage());
        int source = message.indexOf("\n at [Source");
        return ProblemDetail.forStatusAndDetail(
                HttpStatus.BAD_REQUEST, source < 0 ? message : message.substring(0, source));
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
