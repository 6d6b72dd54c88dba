package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import org.jooq.DSLContext;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.road.Delivery;
import org.vastshelf.app.trace.AuditChain;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.StreamId;
import org.vastshelf.core.estate.FilePath;

/** Many files that come together: each is asked for, and all figures are right afterwards. */
class DeliveryTest {

    private static final Delivery DELIVERY = App.bean(Delivery.class);
    private static final long STOP = 1_000_000;

    @BeforeAll
    static void limits() {
        Drafts.carryOut(
                "{\"change\":\"SetLimit\",\"rule\":{\"share\":\"office\",\"path\":\"/crates\",\"eachChild\":true,"
                        + "\"graceTime\":\"PT168H\",\"stopAt\":" + STOP + "}}");
    }

    private static Delivery.Item item(String path, long bytes) {
        return new Delivery.Item(
                "suki",
                new FilePath(path),
                Contents.of(new StreamId(2, path.hashCode() & 0xFFFFFFFL), bytes),
                App.bean(ShelfClock.class).instant());
    }

    private static long number(String sql) {
        return App.bean(DSLContext.class).fetchSingle(sql).get(0, Long.class);
    }

    private static long lines() {
        App.bean(AuditChain.class).extend();
        return number("SELECT COUNT(*) FROM audit_line");
    }

    @Test
    void those_that_fit_are_taken_in_and_the_others_refused_one_by_one() {
        long before = lines();
        List<Delivery.Item> items = new ArrayList<>();
        for (int i = 0; i < 30; i++) {
            items.add(item("/crates/one/f" + i, 60_000));
        }
        items.add(item("/crates/two/g", 70_000));
        items.add(item("/crates/one/f3", 5));
        assertThat(DELIVERY.deliver("office", items)).isEqualTo(16 + 1);
        long after = lines();
        assertThat(after - before).isEqualTo(31);
        assertThat(DELIVERY.deliver("office", items.subList(0, 16)))
                .as("all are there already")
                .isZero();
        assertThat(DELIVERY.deliver("office", List.of())).isZero();
        Agreement.check();
    }

    @Test
    void several_shares_at_once_get_their_own_and_what_one_refuses_the_others_take() {
        Map<String, List<Delivery.Item>> asked = Map.of(
                "office", List.of(item("/crates/three/a", 2_000_000), item("/crates/three/b", 10_000)),
                "film", List.of(item("/shots/new/a", 2_000_000)),
                "plans", List.of());
        assertThat(DELIVERY.deliver(asked)).isEqualTo(2);
        assertThat(DELIVERY.deliver(asked)).as("the large one is refused again").isZero();
        assertThat(number("SELECT COUNT(*) FROM folder WHERE path IN ('/crates/three', '/shots/new')"))
                .isEqualTo(2);
        Agreement.check();
    }

    @Test
    void deliveries_at_once_never_pass_a_stop() throws Exception {
        List<Callable<Integer>> works = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            int n = i;
            works.add(() -> {
                List<Delivery.Item> items = new ArrayList<>();
                for (int k = 0; k < 10; k++) {
                    items.add(item("/crates/many/n" + n + "k" + k, 30_000));
                }
                return DELIVERY.deliver("office", items);
            });
        }
        int taken = 0;
        try (var threads = Executors.newFixedThreadPool(12)) {
            for (var future : threads.invokeAll(works)) {
                taken += future.get();
            }
        }
        assertThat(taken).isEqualTo((int) (STOP / 30_000));
        Agreement.check();
    }

    @Test
    void the_same_files_brought_by_many_at_once_are_taken_in_once() throws Exception {
        List<Delivery.Item> items = new ArrayList<>();
        for (int i = 0; i < 20; i++) {
            items.add(item("/crates/same/s" + i, 1_000));
        }
        List<Callable<Integer>> works = Collections.nCopies(8, () -> DELIVERY.deliver("office", items));
        int taken = 0;
        try (var threads = Executors.newFixedThreadPool(works.size())) {
            for (var future : threads.invokeAll(works)) {
                taken += future.get();
            }
        }
        assertThat(taken).isEqualTo(items.size());
        Agreement.check();
    }

    @Test
    void a_week_of_the_demo_s_people_leaves_all_figures_right() {
        Instant before = App.bean(ShelfClock.class).instant();
        long files = number("SELECT COUNT(*) FROM file");
        assertThat(App.post("odile", "/api/v1/time", "{\"hours\":168}").status())
                .isEqualTo(200);
        assertThat(App.bean(ShelfClock.class).instant()).isAfter(before.plusSeconds(167 * 3_600));
        assertThat(number("SELECT COUNT(*) FROM file")).isNotEqualTo(files);
        assertThat(number("SELECT COUNT(*) FROM agenda WHERE tries > 0")).isZero();
        Agreement.check();
        for (String kind : List.of("WRITE", "READ")) {
            assertThat(App.get("ines", "/api/v1/audit-lines?limit=1&operation=" + kind)
                            .json()
                            .path("items"))
                    .isNotEmpty();
        }
    }
}
