package org.vastshelf.app.catalogue;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicReference;

/**
 * Loads rows in the order in which they are handed over: at once, or beside whoever makes them, so that both cores are at
 * work. In the latter case the connection is the loader's until {@link #await} has returned.
 */
final class Loader implements AutoCloseable {

    /** So many loads wait at most; who makes more waits, too. */
    private static final int WAITING = 2;

    private final Connection connection;
    private final Optional<ExecutorService> beside;
    private final Semaphore room = new Semaphore(WAITING);
    private final AtomicReference<SQLException> failed = new AtomicReference<>();

    private Loader(Connection connection, Optional<ExecutorService> beside) {
        this.connection = connection;
        this.beside = beside;
    }

    static Loader atOnce(Connection connection) {
        return new Loader(connection, Optional.empty());
    }

    static Loader beside(Connection connection) {
        return new Loader(connection, Optional.of(Executors.newSingleThreadExecutor()));
    }

    void load(LoadStore rows) throws SQLException {
        if (beside.isEmpty() || rows.size() == 0) {
            rows.flush(connection);
            return;
        }
        check();
        LoadStore.Load load = rows.take();
        room.acquireUninterruptibly();
        beside.get().execute(() -> {
            try {
                if (failed.get() == null) {
                    load.into(connection);
                }
            } catch (SQLException refused) {
                failed.compareAndSet(null, refused);
            } finally {
                room.release();
            }
        });
    }

    /** Returns when all that was handed over is loaded. */
    void await() throws SQLException {
        room.acquireUninterruptibly(WAITING);
        room.release(WAITING);
        check();
    }

    private void check() throws SQLException {
        SQLException refused = failed.get();
        if (refused != null) {
            throw new SQLException(refused.getMessage(), refused.getSQLState(), refused.getErrorCode(), refused);
        }
    }

    @Override
    public void close() {
        beside.ifPresent(ExecutorService::close);
    }
}
