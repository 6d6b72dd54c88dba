package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.catalogue.SurveyStore;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Whatever is written and deleted in whatever order: sums of folders, roll-ups and volumes agree to the byte. */
class RollUpTest {

    private static final String SHARE = "film";
    private final FileRoad desk = App.bean(FileRoad.class);
    private final CatalogueStore catalogues = App.bean(CatalogueStore.class);
    private final SurveyStore surveys = App.bean(SurveyStore.class);
    private final Share share = App.bean(EstateStore.class).load().shares().get(SHARE);
    private final Volume volume = App.bean(EstateStore.class).load().volumes().get(SHARE);
    private final Map<FilePath, Bytes> expected = new HashMap<>();

    private void operate(Kind kind, FilePath path, Bytes bytes) {
        Outcome result =
                desk.perform(new FileOperation(kind, "suki", SHARE, path, bytes, Workstations.of(share, "suki")));
        assertThat(result.verdict(UnitSystem.BINARY).allowed())
                .as(result.verdict(UnitSystem.BINARY).reason())
                .isTrue();
    }

    private long sum(int catalogue, String folder) {
        return catalogues
                .folder(catalogue, PathBytes.of(folder))
                .map(CatalogueStore.FolderRow::bytes)
                .orElse(0L);
    }

    private long live() {
        return App.bean(UsageStore.class).load().of(SHARE).live().value();
    }

    @Test
    void random_writes_and_deletions_keep_all_sums_in_step() {
        int catalogue = catalogues.find(SHARE).orElseThrow().no();
        long rootBefore = sum(catalogue, "/");
        long liveBefore = live();
        long talliesBefore = tallies(catalogue);
        Random random = new Random(9);
        List<FilePath> paths = new ArrayList<>();
        for (int i = 0; i < 24; i++) {
            paths.add(new FilePath("/rolls/d" + i % 3 + "/e" + i % 2 + "/f" + i + ".mov"));
        }
        for (int i = 0; i < 160; i++) {
            FilePath path = paths.get(random.nextInt(paths.size()));
            if (random.nextInt(3) == 0 && expected.containsKey(path)) {
                operate(Kind.DELETE, path, Bytes.ZERO);
                expected.remove(path);
            } else {
                Bytes bytes = Bytes.of(random.nextInt(3_000_000));
                operate(Kind.WRITE, path, bytes);
                expected.put(path, bytes);
            }
        }
        long held = Bytes.sum(expected.values()).value();
        long allocated = expected.values().stream()
                .mapToLong(b -> volume.allocated(b).value())
                .sum();
        assertThat(sum(catalogue, "/rolls")).isEqualTo(held);
        assertThat(sum(catalogue, "/") - rootBefore).isEqualTo(held);
        assertThat(tallies(catalogue) - talliesBefore).isEqualTo(held);
        assertThat(live() - liveBefore).isEqualTo(allocated);
        for (int d = 0; d < 3; d++) {
            FilePath folder = new FilePath("/rolls/d" + d);
            long below = expected.entrySet().stream()
                    .filter(e -> e.getKey().isWithin(folder))
                    .mapToLong(e -> e.getValue().value())
                    .sum();
            assertThat(sum(catalogue, folder.text())).isEqualTo(below);
        }
    }

    private long tallies(int catalogue) {
        CatalogueStore.Catalogue found = catalogues.all().stream()
                .filter(c -> c.no() == catalogue)
                .findFirst()
                .orElseThrow();
        long byAge = surveys.ageAndSize(found).stream()
                .mapToLong(SurveyStore.Tally::bytes)
                .sum();
        assertThat(List.of(
                        sum(surveys.byKind(found)),
                        sum(surveys.byOwner(found)),
                        App.bean(DSLContext.class)
                                .fetchSingle(
                                        "SELECT COALESCE(SUM(bytes), 0) FROM tally WHERE catalogue_no = ?"
                                                + " AND folder_no >= 0",
                                        catalogue)
                                .get(0, Long.class)))
                .as("by age, by kind, by owner and by folder all hold the same")
                .containsOnly(byAge);
        return byAge;
    }

    private static long sum(List<SurveyStore.Group> groups) {
        return groups.stream().mapToLong(SurveyStore.Group::bytes).sum();
    }

    @Test
    void the_demo_s_figures_agree_with_each_other() {
        for (Share each : App.bean(EstateStore.class).load().shares().values()) {
            catalogues.find(each.name()).ifPresent(c -> {
                long root = sum(c.no(), "/");
                assertThat(c.bytes()).as(each.name()).isEqualTo(root);
                assertThat(tallies(c.no())).as(each.name()).isEqualTo(root);
                assertThat(surveys.byKind(c).stream()
                                .mapToLong(SurveyStore.Group::bytes)
                                .sum())
                        .isEqualTo(root);
                long allocated = catalogues
                        .folder(c.no(), PathBytes.of("/"))
                        .orElseThrow()
                        .allocated();
                assertThat(App.bean(UsageStore.class)
                                .load()
                                .of(each.volume())
                                .live()
                                .value())
                        .isEqualTo(allocated);
            });
        }
    }
}
