package org.vastshelf.app.frame;

import jakarta.servlet.http.HttpServletRequest;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.validation.BindException;
import org.springframework.validation.FieldError;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MultipartException;
import org.springframework.web.multipart.support.MissingServletRequestPartException;
import org.springframework.web.servlet.ModelAndView;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.unit.ShortText;

/** Turns what core refused into a page that says so. Forms catch their own, to keep what was typed. */
@ControllerAdvice(annotations = Page.class)
class PageErrors {

    private static final Logger LOG = LoggerFactory.getLogger(PageErrors.class);

    @ExceptionHandler({
        IllegalArgumentException.class,
        ArithmeticException.class,
        OrderService.NotReady.class,
        EstateStore.NotWhole.class
    })
    ModelAndView refused(RuntimeException refused, HttpServletRequest request) {
        if (request.getMethod().equals("GET") && request.getQueryString() == null) {
            // Nobody asked for anything that could be wrong.
            LOG.warn("{} could not be shown", request.getRequestURI(), refused);
        }
        return page(HttpStatus.BAD_REQUEST, String.valueOf(refused.getMessage()));
    }

    /** What lies in a cold store that does not give it. */
    @ExceptionHandler(FarAway.class)
    ModelAndView away(FarAway away) {
        return page(HttpStatus.SERVICE_UNAVAILABLE, "It can't be read now: " + away.getMessage());
    }

    /** A field that is no number, say. */
    @ExceptionHandler(BindException.class)
    ModelAndView unreadable(BindException refused) {
        FieldError field = refused.getFieldError();
        return page(
                HttpStatus.BAD_REQUEST,
                field == null
                        ? "The form could not be read"
                        : field.getField() + " is '" + field.getRejectedValue()
                                + "', must be a number or a choice offered");
    }

    /** A part of a form that is missing, or a form that is none. */
    @ExceptionHandler({
        MissingServletRequestParameterException.class,
        MissingServletRequestPartException.class,
        MultipartException.class
    })
    ModelAndView incomplete(Exception refused) {
        return page(HttpStatus.BAD_REQUEST, "The form could not be read: " + refused.getMessage());
    }

    @ExceptionHandler(MethodArgumentTypeMismatchException.class)
    ModelAndView wrong(MethodArgumentTypeMismatchException refused) {
        return page(
                HttpStatus.BAD_REQUEST,
                refused.getName() + " is '" + ShortText.of(String.valueOf(refused.getValue()), 60)
                        + "', must be a number or a choice offered");
    }

    @ExceptionHandler({NotThere.class, OrderService.NoSuchOrder.class, NotFound.class})
    ModelAndView missing(RuntimeException missing) {
        return page(HttpStatus.NOT_FOUND, String.valueOf(missing.getMessage()));
    }

    private static ModelAndView page(HttpStatus status, String message) {
        ModelAndView page = new ModelAndView("error", status);
        page.addObject("title", "That was not done");
        page.addObject("message", message);
        // Nothing that is done before a page is shown is done for one of a failure.
        if (RequestContextHolder.currentRequestAttributes() instanceof ServletRequestAttributes here) {
            ThemeCookie.show(here.getRequest(), page);
        }
        return page;
    }
}
