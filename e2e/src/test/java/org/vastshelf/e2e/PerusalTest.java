package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import org.jooq.DSLContext;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.road.Delivery;
import org.vastshelf.app.road.Perusal;
import org.vastshelf.app.road.TreeRoad;
import org.vastshelf.app.trace.AuditChain;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.StreamId;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;

/** Many reads at once come to the same as one after the other. */
class PerusalTest {

    private static final Perusal PERUSAL = App.bean(Perusal.class);
    private static final Instant NOW = App.bean(ShelfClock.class).instant();
    private static final Instant LONG_AGO = NOW.minus(Duration.ofDays(70));
    private static final int FILES = 12;

    @BeforeAll
    static void files() {
        List<Delivery.Item> items = new ArrayList<>();
        for (int i = 0; i < FILES; i++) {
            items.add(
                    new Delivery.Item("suki", path(i), Contents.of(new StreamId(2, 77_000 + i), 5_000 + i), LONG_AGO));
        }
        assertThat(App.bean(Delivery.class).deliver("office", items)).isEqualTo(FILES);
    }

    private static FilePath path(int i) {
        return new FilePath("/reading-room/shelf-" + i % 3 + "/f" + i);
    }

    private static Perusal.Item read(String who, int i, Instant at) {
        return Perusal.Item.read(who, "office", path(i), at);
    }

    private static long number(String sql) {
        return App.bean(DSLContext.class).fetchSingle(sql).get(0, Long.class);
    }

    private static long usedAt(int i) {
        return number("SELECT accessed_at FROM file WHERE name = 'f" + i + "' AND folder_no IN"
                + " (SELECT no FROM folder WHERE path = '" + path(i).parent() + "')");
    }

    private static long lines(String verdict) {
        App.bean(AuditChain.class).extend();
        return number("SELECT COUNT(*) FROM audit_line WHERE operation = 'READ' AND verdict = '" + verdict + "'");
    }

    @Test
    void each_is_asked_for_and_written_down_and_the_last_use_is_the_newest() {
        long allowed = lines("ALLOWED");
        long refused = lines("REFUSED");
        assertThat(PERUSAL.read(List.of(
                        read("suki", 0, NOW.minusSeconds(900_000)),
                        read("pell", 0, NOW.minusSeconds(100)),
                        read("pell", 1, LONG_AGO.plusSeconds(3_600)),
                        read("pell", 77, NOW),
                        Perusal.Item.read("suki", "office", new FilePath("/nowhere/at/all"), NOW),
                        Perusal.Item.read("ines", "sequences", new FilePath("/nowhere/at/all"), NOW))))
                .as("what is not there nobody reads, and who may not read is refused")
                .isEqualTo(3);
        assertThat(lines("ALLOWED") - allowed).isEqualTo(3);
        assertThat(lines("REFUSED") - refused).isEqualTo(1);
        assertThat(usedAt(0)).isEqualTo(NOW.minusSeconds(100).getEpochSecond());
        assertThat(usedAt(1)).as("used within a day before").isEqualTo(LONG_AGO.getEpochSecond());
        assertThat(usedAt(2)).isEqualTo(LONG_AGO.getEpochSecond());
        assertThat(PERUSAL.read(List.of())).isZero();
        Agreement.check();
    }

    @Test
    void thousands_of_folders_at_once() {
        List<FilePath> paths = IntStream.range(0, 3_000)
                .mapToObj(i -> new FilePath("/stacks/%d/%d/f".formatted(i % 7, i)))
                .toList();
        assertThat(App.bean(Delivery.class)
                        .deliver(
                                "office",
                                paths.stream()
                                        .map(path -> new Delivery.Item(
                                                "suki", path, Contents.of(new StreamId(2, 9), 10), LONG_AGO))
                                        .toList()))
                .isEqualTo(3_000);
        List<Perusal.Item> items = new ArrayList<>();
        paths.forEach(path -> {
            items.add(new Perusal.Item(FileOperation.Kind.LIST, "pell", "office", path.parent(), NOW));
            items.add(Perusal.Item.read("pell", "office", path, NOW));
        });
        assertThat(PERUSAL.read(items)).isEqualTo(6_000);
        assertThat(number("SELECT COUNT(*) FROM file WHERE name = 'f' AND accessed_at = " + NOW.getEpochSecond()))
                .isEqualTo(3_000);
        assertThat(App.bean(TreeRoad.class)
                        .removeFolder("suki", new TreeRoad.At("office", new FilePath("/stacks")))
                        .allowed())
                .isTrue();
        Agreement.check();
    }

    @Test
    void many_at_once_beside_moves_and_removals_leave_all_figures_right() throws Exception {
        List<Callable<Integer>> works = new ArrayList<>();
        for (int n = 0; n < 6; n++) {
            List<Perusal.Item> items = new ArrayList<>();
            for (int i = 3; i < FILES; i++) {
                items.add(read("pell", i, NOW.minusSeconds(50L * n)));
            }
            Collections.rotate(items, n);
            works.add(() -> PERUSAL.read(items));
        }
        for (int i = 9; i < FILES; i++) {
            FilePath from = path(i);
            FilePath to = from.parent().child("renamed " + i);
            works.add(() -> App.bean(TreeRoad.class)
                            .move("suki", new TreeRoad.At("office", from), to)
                            .allowed()
                    ? 1
                    : 0);
        }
        try (var threads = Executors.newFixedThreadPool(works.size())) {
            for (var future : threads.invokeAll(works)) {
                assertThat(future.get()).isPositive();
            }
        }
        for (int i = 3; i < 9; i++) {
            assertThat(usedAt(i)).isBetween(NOW.minusSeconds(250).getEpochSecond(), NOW.getEpochSecond());
        }
        Agreement.check();
    }
}
