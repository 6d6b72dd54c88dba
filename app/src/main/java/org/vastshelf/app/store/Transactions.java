package org.vastshelf.app.store;

import java.sql.SQLException;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The one place where transactions begin and end. What the database asks to be run again, because it lost against
 * another transaction, is run again from its beginning; whatever is handed over has to bear that.
 */
@Component
public class Transactions {

    private static final Logger LOG = LoggerFactory.getLogger(Transactions.class);
    private static final int TRIES = 12;
    private static final int LONGEST_PAUSE_MILLIS = 250;

    private static final String SERIALIZATION_FAILURE = "40001";
    private static final int LOCK_WAIT_TIMEOUT = 1205;
    private static final int DEADLOCK = 1213;
    private static final int RECORD_CHANGED = 1020;

    private final TransactionTemplate template;

    public Transactions(PlatformTransactionManager manager) {
        this.template = new TransactionTemplate(manager);
    }

    /** Thrown by work that found that another transaction came first, to be run again from its beginning. */
    public static final class RunAgain extends RuntimeException {
        public RunAgain(String why, Throwable cause) {
            super(why, cause);
        }
    }

    /** Runs the work in the transaction that is under way, or in one of its own. */
    public <T> T run(Supplier<T> work) {
        return isUnderWay() ? work.get() : outermost(work);
    }

    /** Whether the caller is part of a transaction already. */
    public boolean isUnderWay() {
        return TransactionSynchronizationManager.isActualTransactionActive();
    }

    public void run(Runnable work) {
        run(() -> {
            work.run();
            return true;
        });
    }

    private <T> T outermost(Supplier<T> work) {
        for (int tried = 1; ; tried++) {
            try {
                return template.execute(status -> work.get());
            } catch (RuntimeException failed) {
                if (tried == TRIES || !isToBeRunAgain(failed)) {
                    throw failed;
                }
                LOG.debug("run again after {} tries: {}", tried, failed.getMessage());
                rest(tried);
            }
        }
    }

    /** Longer after each try, and never the same for two that met. */
    private static void rest(int tried) {
        try {
            Thread.sleep(ThreadLocalRandom.current().nextInt(Math.min(LONGEST_PAUSE_MILLIS, 4 << tried)) + 1L);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
        }
    }

    static boolean isToBeRunAgain(Throwable failed) {
        for (Throwable cause = failed; cause != null; cause = cause.getCause()) {
            if (cause instanceof RunAgain) {
                return true;
            }
            if (cause instanceof SQLException sql
                    && (SERIALIZATION_FAILURE.equals(sql.getSQLState())
                            || sql.getErrorCode() == DEADLOCK
                            || sql.getErrorCode() == LOCK_WAIT_TIMEOUT
                            || sql.getErrorCode() == RECORD_CHANGED)) {
                return true;
            }
        }
        return false;
    }
}
