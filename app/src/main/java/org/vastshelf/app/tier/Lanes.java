package org.vastshelf.app.tier;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicReference;

/** Does several things at the same time, at most so many; the first that fails ends it. */
final class Lanes implements AutoCloseable {

    private final int many;
    private final Semaphore free;
    private final ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor();
    private final AtomicReference<RuntimeException> failure = new AtomicReference<>();

    Lanes(int many) {
        this.many = many;
        this.free = new Semaphore(many);
    }

    /**
     * Begins something as soon as a lane is free.
     *
     * @throws RuntimeException that something before it threw
     */
    void begin(Runnable something) {
        free.acquireUninterruptibly();
        try {
            requireNoFailure();
        } catch (RuntimeException failed) {
            free.release();
            throw failed;
        }
        threads.execute(() -> {
            try {
                something.run();
            } catch (RuntimeException failed) {
                failure.compareAndSet(null, failed);
            } finally {
                free.release();
            }
        });
    }

    /**
     * Waits until all is done that has begun.
     *
     * @throws RuntimeException that something threw
     */
    void rest() {
        free.acquireUninterruptibly(many);
        free.release(many);
        requireNoFailure();
    }

    private void requireNoFailure() {
        RuntimeException failed = failure.get();
        if (failed != null) {
            throw failed;
        }
    }

    /** Waits until all is done that has begun; what of it failed is told by {@link #rest()} alone. */
    @Override
    public void close() {
        threads.close();
    }
}
