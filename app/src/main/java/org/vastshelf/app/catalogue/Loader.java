package org.vastshelf.app.catalogue;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Stream;
import org.vastshelf.app.store.LoadStore;

/**
 * Loads rows: at once, or beside whoever makes them, over one connection or several, so that all cores are at work. In
 * the latter case the connections are the loader's until {@link #await} has returned, and rows come in any order.
 */
final class Loader implements AutoCloseable {

    /** So many loads wait for a connection at most; who makes more waits, too. */
    private static final int WAITING = 2;

    private final Connection connection;
    private final List<Lane> lanes;
    private final AtomicReference<SQLException> failed = new AtomicReference<>();
    private int turn;

    /** A connection with the thread that it belongs to. */
    private record Lane(Connection connection, ExecutorService thread, Semaphore room) {}

    private Loader(Connection connection, List<Lane> lanes) {
        this.connection = connection;
        this.lanes = lanes;
    }

    static Loader atOnce(Connection connection) {
        return new Loader(connection, List.of());
    }

    static Loader beside(Connection connection, Connection... others) {
        return new Loader(
                connection,
                Stream.concat(Stream.of(connection), Stream.of(others))
                        .map(c -> new Lane(c, Executors.newSingleThreadExecutor(), new Semaphore(WAITING)))
                        .toList());
    }

    void load(LoadStore rows) throws SQLException {
        if (lanes.isEmpty() || rows.size() == 0) {
            rows.flush(connection);
            return;
        }
        check();
        LoadStore.Load load = rows.take();
        Lane lane = lanes.get(turn++ % lanes.size());
        lane.room.acquireUninterruptibly();
        lane.thread.execute(() -> {
            try {
                if (failed.get() == null) {
                    load.into(lane.connection);
                }
            } catch (SQLException refused) {
                failed.compareAndSet(null, refused);
            } catch (RuntimeException unforeseen) {
                failed.compareAndSet(null, new SQLException(unforeseen));
            } finally {
                lane.room.release();
            }
        });
    }

    /** Returns when all that was handed over is loaded. */
    void await() throws SQLException {
        for (Lane lane : lanes) {
            lane.room.acquireUninterruptibly(WAITING);
            lane.room.release(WAITING);
        }
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
        lanes.forEach(lane -> lane.thread.close());
    }
}
