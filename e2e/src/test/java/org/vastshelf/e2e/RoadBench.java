package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicLong;
import javax.sql.DataSource;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.unit.Bytes;

/** What a file operation costs, as ratios measured in one run; {@code ./shelf bench road} prints them. */
@EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
class RoadBench {

    private static final int WARM = 4_000;
    private static final int ROUNDS = 1_500;
    private static final long MILLIS = 6_000;
    private static final int CLIENTS = 16;

    /** Each with a home, and with it an account, of their own. */
    private static final List<String> PEOPLE = App.bean(Directory.class).people().stream()
            .map(Person::uid)
            .sorted()
            .limit(CLIENTS)
            .toList();

    private final FileRoad road = App.bean(FileRoad.class);
    private final AtomicLong names = new AtomicLong();
    private final Share share = App.bean(EstateStore.class).load().shares().get("homes");

    private void write(int account) {
        boolean allowed = road.perform(new FileOperation(
                        Kind.WRITE,
                        PEOPLE.get(account),
                        "homes",
                        new FilePath("/" + PEOPLE.get(account) + "/bench/f" + names.incrementAndGet() % 50 + ".odt"),
                        Bytes.of(40_000),
                        Workstations.of(share, PEOPLE.get(account))))
                .allowed();
        assertThat(allowed).isTrue();
    }

    private static void bare(Connection connection, long i) throws SQLException {
        try (var insert = connection.prepareStatement("INSERT INTO bare_line (text) VALUES (?)");
                var update = connection.prepareStatement("UPDATE bare_sum SET bytes = bytes + 1 WHERE id = ?");
                var select = connection.prepareStatement("SELECT bytes FROM bare_sum WHERE id = ?")) {
            select.setLong(1, i % 16);
            select.executeQuery().close();
            insert.setString(1, "line " + i);
            insert.executeUpdate();
            update.setLong(1, i % 16);
            update.executeUpdate();
        }
        connection.commit();
    }

    private static double median(long[] nanos) {
        Arrays.sort(nanos);
        return nanos[nanos.length / 2] / 1e6;
    }

    @Test
    void a_save_costs_few_statements_and_many_at_once_do_not_wait_for_each_other() throws Exception {
        for (int i = 0; i < WARM; i++) {
            write(i % CLIENTS);
        }
        int statements = Statements.during(() -> write(1));
        int reading = Statements.during(() -> road.perform(new FileOperation(
                Kind.READ,
                PEOPLE.get(1),
                "homes",
                new FilePath("/" + PEOPLE.get(1) + "/bench/f1.odt"),
                Bytes.ZERO,
                Workstations.of(share, PEOPLE.get(1)))));
        long[] saves = new long[ROUNDS];
        long[] bares = new long[ROUNDS];
        try (Connection connection = App.bean(DataSource.class).getConnection()) {
            connection
                    .createStatement()
                    .execute("CREATE TABLE IF NOT EXISTS bare_line (id BIGINT AUTO_INCREMENT PRIMARY KEY,"
                            + " text VARCHAR(40)) ENGINE=InnoDB");
            connection
                    .createStatement()
                    .execute("CREATE TABLE IF NOT EXISTS bare_sum (id INT PRIMARY KEY, bytes BIGINT)");
            connection.createStatement().execute("INSERT IGNORE INTO bare_sum SELECT seq, 0 FROM seq_0_to_15");
            connection.setAutoCommit(false);
            for (int i = 0; i < ROUNDS; i++) {
                long begin = System.nanoTime();
                write(i % CLIENTS);
                long middle = System.nanoTime();
                bare(connection, i);
                bares[i] = System.nanoTime() - middle;
                saves[i] = middle - begin;
            }
            connection.setAutoCommit(true);
        }
        double one = rate(1);
        double many = rate(CLIENTS);
        double save = median(saves);
        double bare = median(bares);
        System.out.printf(
                Locale.ROOT,
                "road: statements for a save %d (at most 12), for a read %d (at most 6)%n",
                statements,
                reading);
        System.out.printf(
                Locale.ROOT,
                "road: a save %.2f ms, a bare transaction of three statements %.2f ms, ratio %.1f (at most 8)%n",
                save,
                bare,
                save / bare);
        System.out.printf(
                Locale.ROOT,
                "road: one client %.0f saves/s, %d clients on accounts of their own %.0f saves/s, ratio %.2f (at least 1.8)%n",
                one,
                CLIENTS,
                many,
                many / one);
    }

    private double rate(int clients) throws Exception {
        AtomicLong done = new AtomicLong();
        long end = System.currentTimeMillis() + MILLIS;
        List<Callable<Boolean>> works = new ArrayList<>();
        for (int c = 0; c < clients; c++) {
            int account = c;
            works.add(() -> {
                while (System.currentTimeMillis() < end) {
                    write(account);
                    done.incrementAndGet();
                }
                return true;
            });
        }
        try (var threads = Executors.newFixedThreadPool(clients)) {
            for (Future<Boolean> work : threads.invokeAll(works)) {
                work.get();
            }
        }
        return done.get() * 1_000.0 / MILLIS;
    }
}
