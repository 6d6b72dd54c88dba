package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.jooq.DSLContext;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.limit.AccountCheck;
import org.vastshelf.app.limit.AccountPageStore;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/** Many at once on the one road: everybody gets an answer, no limit is passed, and the sums are those of the rows. */
class RoadTest {

    private static final int WRITERS = 64;
    private static final Bytes STOP = Bytes.of(50_000_000);
    private static final FileRoad ROAD = App.bean(FileRoad.class);

    @BeforeAll
    static void limits() {
        Drafts.carryOut(
                "{\"change\":\"SetLimit\",\"rule\":{\"share\":\"office\",\"path\":\"/crowd\",\"eachChild\":false,"
                        + "\"graceTime\":\"PT168H\",\"stopAt\":" + STOP.value() + "}},"
                        + "{\"change\":\"SetLimit\",\"rule\":{\"share\":\"office\",\"path\":\"/crowds\",\"eachChild\":true,"
                        + "\"graceTime\":\"PT168H\",\"stopAt\":" + STOP.value() + "}}");
    }

    private static Estate estate() {
        return App.bean(EstateStore.class).load();
    }

    private static FileOperation operation(Kind kind, String path, long bytes) {
        Share share = estate().shares().get("office");
        return new FileOperation(
                kind, "suki", "office", new FilePath(path), Bytes.of(bytes), Workstations.of(share, "suki"));
    }

    /** Runs them all at once; none may fail. */
    private static <T> List<T> atOnce(List<Callable<T>> works) throws Exception {
        try (var threads = Executors.newFixedThreadPool(WRITERS)) {
            List<T> results = new ArrayList<>();
            for (Future<T> future : threads.invokeAll(works)) {
                results.add(future.get());
            }
            return results;
        }
    }

    /** Random saves, overwrites and removals; a file that is gone already is an answer too. */
    private static Callable<Boolean> work(String folder, int seed) {
        Random random = new Random(seed);
        return () -> {
            boolean refused = false;
            for (int i = 0; i < 8; i++) {
                String path = folder + "/f" + random.nextInt(12) + ".odt";
                boolean delete = random.nextInt(5) == 0;
                try {
                    refused |= !ROAD.perform(operation(
                                    delete ? Kind.DELETE : Kind.WRITE, path, delete ? 0 : random.nextInt(9_000_000)))
                            .allowed();
                } catch (org.vastshelf.app.road.NotThere gone) {
                    assertThat(delete).isTrue();
                }
            }
            return refused;
        };
    }

    private static Account account(String rule, String holder) {
        LimitRule found = estate().limits().get(rule);
        return App.bean(AccountPageStore.class)
                .find(estate(), found, new FilePath(holder))
                .orElseThrow();
    }

    private static long rows(String folder) {
        CatalogueStore catalogues = App.bean(CatalogueStore.class);
        int no = catalogues.find("office").orElseThrow().no();
        return catalogues.files(no, catalogues.folder(no, PathBytes.of(folder)).orElseThrow(), 10_000).stream()
                .mapToLong(f -> f.file().bytes())
                .sum();
    }

    @Test
    void sixty_four_writers_on_one_account_never_pass_its_stop_by_a_byte() throws Exception {
        List<Callable<Boolean>> works = new ArrayList<>();
        for (int i = 0; i < WRITERS; i++) {
            works.add(work("/crowd", i));
        }
        assertThat(atOnce(works)).contains(true);
        Account account = account("office:/crowd", "/crowd");
        assertThat(account.used().value()).isEqualTo(rows("/crowd")).isLessThanOrEqualTo(STOP.value());
        Agreement.check();
    }

    @Test
    void writers_on_many_accounts_all_get_their_verdict() throws Exception {
        List<Callable<Boolean>> works = new ArrayList<>();
        for (int i = 0; i < WRITERS; i++) {
            works.add(work("/crowds/c" + i % 16, 100 + i));
        }
        atOnce(works);
        for (int i = 0; i < 16; i++) {
            String folder = "/crowds/c" + i;
            Account account = account("office:/crowds/*", folder);
            assertThat(account.used().value())
                    .as(folder)
                    .isEqualTo(rows(folder))
                    .isLessThanOrEqualTo(STOP.value());
        }
        Agreement.check();
    }

    @Test
    void the_first_save_of_all_into_new_folders_is_one_of_many_at_once() throws Exception {
        List<Callable<Boolean>> works = new ArrayList<>();
        for (int i = 0; i < WRITERS; i++) {
            String path = "/deep/" + i % 4 + "/one/two/f" + i % 8;
            works.add(() -> ROAD.perform(operation(Kind.WRITE, path, 1_000)).allowed());
        }
        assertThat(atOnce(works)).doesNotContain(false);
        Agreement.check();
    }

    @Test
    void writers_never_take_more_than_a_pool_has_while_the_estate_changes_under_them() throws Exception {
        Estate begin = estate();
        Bytes free = Ledgers.ofPool(
                        begin, App.bean(UsageStore.class).load(), begin.pools().get("elm"))
                .free();
        List<Callable<Boolean>> works = new ArrayList<>();
        long each = free.value() / 10;
        for (int i = 0; i < 32; i++) {
            String share = List.of("office", "plans", "homes").get(i % 3);
            String who = share.equals("plans") ? "suki" : "suki";
            String path = share.equals("homes") ? "/suki/big" + i : "/big/b" + i;
            works.add(() -> {
                Share found = estate().shares().get(share);
                return ROAD.perform(new FileOperation(
                                Kind.WRITE,
                                who,
                                share,
                                new FilePath(path),
                                Bytes.of(each),
                                Workstations.of(found, who)))
                        .allowed();
            });
        }
        works.add(() -> App.post(
                                "odile",
                                "/api/v1/orders",
                                "{\"changes\":[{\"change\":\"SetPoolReserve\",\"pool\":\"elm\",\"reserve\":"
                                        + Bytes.gib(100).value() + "}]}")
                        .status()
                == 201);
        atOnce(works);
        Estate after = estate();
        assertThat(org.vastshelf.core.invariant.Invariants.of(
                        after, App.bean(UsageStore.class).load()))
                .isEmpty();
        for (int i = 0; i < 32; i++) {
            String share = List.of("office", "plans", "homes").get(i % 3);
            String path = share.equals("homes") ? "/suki/big" + i : "/big/b" + i;
            try {
                ROAD.perform(new FileOperation(
                        Kind.DELETE,
                        "suki",
                        share,
                        new FilePath(path),
                        Bytes.ZERO,
                        Workstations.of(after.shares().get(share), "suki")));
            } catch (org.vastshelf.app.road.NotThere refusedBefore) {
                assertThat(refusedBefore).hasMessageContaining(path);
            }
        }
        Agreement.check();
    }

    @Test
    void a_save_takes_thirteen_statements_at_most_and_a_read_seven() {
        ROAD.perform(operation(Kind.WRITE, "/crowds/c0/counted.odt", 1_000));
        assertThat(statements(Kind.WRITE, "/crowds/c0/counted.odt", 900)).isLessThanOrEqualTo(13);
        assertThat(statements(Kind.WRITE, "/crowds/c0/new.odt", 900)).isLessThanOrEqualTo(13);
        assertThat(statements(Kind.READ, "/crowds/c0/counted.odt", 0)).isLessThanOrEqualTo(7);
        assertThat(statements(Kind.DELETE, "/crowds/c0/counted.odt", 0)).isLessThanOrEqualTo(13);
    }

    private static int statements(Kind kind, String path, long bytes) {
        FileOperation operation = operation(kind, path, bytes);
        return Statements.during(() -> ROAD.perform(operation));
    }

    private static String owned(String path, String apart) {
        return "{\"change\":\"SetLimit\",\"rule\":{\"share\":\"office\",\"path\":\"" + path
                + "\",\"eachChild\":false,\"apart\":\"" + apart + "\",\"graceTime\":\"PT168H\",\"stopAt\":"
                + STOP.value() + "}}";
    }

    private static Map<String, Long> byOwner(String field) {
        return App.bean(DSLContext.class)
                .fetch("SELECT f." + field + ", SUM(f.bytes) FROM file f JOIN folder d ON d.catalogue_no ="
                        + " f.catalogue_no AND d.no = f.folder_no WHERE LEFT(d.path, 6) = '/owned' AND f." + field
                        + " <> '' GROUP BY 1")
                .intoMap(r -> r.get(0, String.class), r -> r.get(1, Long.class));
    }

    private static Map<String, Long> said(String rule) {
        return App.bean(DSLContext.class)
                .fetch(
                        "SELECT CAST(holder AS CHAR), used_bytes FROM account WHERE rule_key = ? AND used_bytes > 0",
                        rule)
                .intoMap(r -> r.get(0, String.class), r -> r.get(1, Long.class));
    }

    @Test
    void what_people_and_groups_own_counts_for_them_whoever_saves_over_it() throws Exception {
        for (int i = 0; i < 4; i++) {
            ROAD.perform(operation(Kind.WRITE, "/owned/before/f" + i, 5_000_000));
        }
        App.bean(DSLContext.class)
                .execute("UPDATE file f JOIN folder d ON d.catalogue_no = f.catalogue_no AND d.no = f.folder_no"
                        + " SET f.owner_group = '' WHERE d.path = '/owned/before' AND f.name = 'f3'");
        Drafts.carryOut(owned("/owned", "PERSON") + "," + owned("/owned", "GROUP"));
        assertThat(said("office:/owned//person")).containsExactly(Map.entry("suki", 20_000_000L));
        List<Callable<Boolean>> works = new ArrayList<>();
        for (int i = 0; i < 32; i++) {
            Random random = new Random(i);
            String who = List.of("suki", "odile", "tomas", "pell").get(i % 4);
            works.add(() -> {
                boolean refused = false;
                for (int n = 0; n < 8; n++) {
                    FileOperation any = operation(
                            random.nextInt(6) == 0 ? Kind.DELETE : Kind.WRITE,
                            "/owned/d" + random.nextInt(2) + "/f" + random.nextInt(20),
                            0);
                    long bytes = any.kind() == Kind.WRITE ? random.nextInt(9_000_000) : 0;
                    try {
                        refused |= !ROAD.perform(new FileOperation(
                                        any.kind(), who, any.share(), any.path(), Bytes.of(bytes), any.client()))
                                .allowed();
                    } catch (org.vastshelf.app.road.NotThere gone) {
                        assertThat(any.kind()).isEqualTo(Kind.DELETE);
                    }
                }
                return refused;
            });
        }
        assertThat(atOnce(works)).contains(true);
        assertThat(said("office:/owned//person"))
                .isEqualTo(byOwner("owner"))
                .hasSizeGreaterThan(1)
                .allSatisfy((who, bytes) -> assertThat(bytes).isLessThanOrEqualTo(STOP.value()));
        assertThat(said("office:/owned//group")).isEqualTo(byOwner("owner_group"));
        Agreement.check();
    }

    @Test
    void a_figure_that_drifted_is_mended_and_told() {
        ROAD.perform(operation(Kind.WRITE, "/crowd/drift", 1_000));
        Account before = account("office:/crowd", "/crowd");
        App.bean(DSLContext.class)
                .execute("UPDATE account SET used_bytes = used_bytes + 7 WHERE rule_key = 'office:/crowd'");
        var drifts =
                App.bean(AccountCheck.class).mend(App.bean(ShelfClock.class).instant());
        assertThat(drifts).hasSize(1);
        assertThat(account("office:/crowd", "/crowd").used()).isEqualTo(before.used());
        assertThat(App.get("odile", "/api/v1/notices?limit=20").text())
                .contains("account office/crowd was said to hold");
        Agreement.check();
    }
}
