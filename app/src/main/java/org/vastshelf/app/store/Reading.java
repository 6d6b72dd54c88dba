package org.vastshelf.app.store;

import java.util.IdentityHashMap;
import java.util.Map;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * What one answer is made of is read once, so that its figures are of one moment. Transactions see what they find
 * instead.
 */
@Component
public class Reading {

    private final ThreadLocal<@Nullable Map<Object, Object>> open = new ThreadLocal<>();

    /** Something that may fail as answers do. */
    @FunctionalInterface
    public interface Answer<X extends Exception, Y extends Exception> {
        void make() throws X, Y;
    }

    /** Lets all that this thread reads meanwhile be of one moment. */
    public <X extends Exception, Y extends Exception> void during(Answer<X, Y> answer) throws X, Y {
        open.set(new IdentityHashMap<>());
        try {
            answer.make();
        } finally {
            open.remove();
        }
    }

    /** What was read before for the same answer, or what is read now. */
    @SuppressWarnings("unchecked")
    <T> T once(Object what, Supplier<T> read) {
        Map<Object, Object> known = open.get();
        if (known == null || TransactionSynchronizationManager.isActualTransactionActive()) {
            return read.get();
        }
        Object before = known.get(what);
        if (before == null) {
            before = read.get();
            known.put(what, before);
        }
        return (T) before;
    }
}
