package org.vastshelf.app.frame;

import org.springframework.http.HttpStatus;
import org.springframework.validation.BindException;
import org.springframework.validation.FieldError;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.servlet.ModelAndView;
import org.vastshelf.app.desk.DeskService;
import org.vastshelf.app.orders.OrderService;

/** Turns what core refused into a page that says so. Forms catch their own, to keep what was typed. */
@ControllerAdvice(annotations = Page.class)
class PageErrors {

    @ExceptionHandler({IllegalArgumentException.class, OrderService.NotReady.class})
    ModelAndView refused(RuntimeException refused) {
        return page(HttpStatus.BAD_REQUEST, String.valueOf(refused.getMessage()));
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

    @ExceptionHandler({DeskService.NotThere.class, OrderService.NoSuchOrder.class, NotFound.class})
    ModelAndView missing(RuntimeException missing) {
        return page(HttpStatus.NOT_FOUND, String.valueOf(missing.getMessage()));
    }

    private static ModelAndView page(HttpStatus status, String message) {
        ModelAndView page = new ModelAndView("error", status);
        page.addObject("message", message);
        return page;
    }
}
