package org.vastshelf.e2e;

import java.util.Arrays;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.ExecuteContext;
import org.jooq.ExecuteListener;
import org.jooq.ExecuteListenerProvider;

/** Counts the statements that a thread has the application run. */
final class Statements implements ExecuteListener {

    private static final ThreadLocal<int[]> COUNT = ThreadLocal.withInitial(() -> new int[1]);

    static {
        var configuration = App.bean(DSLContext.class).configuration();
        configuration.set(Stream.concat(
                        Arrays.stream(configuration.executeListenerProviders()),
                        Stream.<ExecuteListenerProvider>of(Statements::new))
                .toArray(ExecuteListenerProvider[]::new));
    }

    static int during(Runnable work) {
        int before = COUNT.get()[0];
        work.run();
        return COUNT.get()[0] - before;
    }

    @Override
    public void executeStart(ExecuteContext context) {
        COUNT.get()[0]++;
    }
}
