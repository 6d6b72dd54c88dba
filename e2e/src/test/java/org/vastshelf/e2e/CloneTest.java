package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.nio.charset.StandardCharsets;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.content.KeptCheck;
import org.vastshelf.app.snapshot.CloneComparison;
import org.vastshelf.app.snapshot.HoldCheck;

/** A snapshot is made writable, written to, and made independent; every byte is counted once. */
class CloneTest {

    private static final long BLOCK = 4_096;
    private static final DSLContext DB = App.bean(DSLContext.class);

    private static final String FEN =
            "{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"fen\",\"pool\":\"elm\",\"size\":4294967296,"
                    + "\"thin\":true,\"blockSize\":4096,\"alarmPercent\":85,\"kind\":\"GUARDED\",\"encrypted\":false,"
                    + "\"pace\":{\"byHand\":false,\"mibps\":0}}},{\"change\":\"OpenShare\",\"share\":{\"name\":\"fen\","
                    + "\"volume\":\"fen\",\"smb\":true,\"nfs\":false,\"hiddenEntries\":true,\"access\":[{\"subject\":"
                    + "\"EVERYONE\",\"name\":\"\",\"level\":\"WRITE\"}],\"exports\":[]}}";

    private static String clone(String volume, int snapshot, String name) {
        return "{\"change\":\"MakeClone\",\"volume\":\"" + volume + "\",\"snapshot\":" + snapshot + ",\"name\":\""
                + name + "\",\"ofCopy\":false}";
    }

    private static String answer(String share, String kind, String path, long bytes) {
        App.Reply reply = App.post(
                "odile",
                "/api/v1/desk/operations",
                "{\"person\":\"suki\",\"share\":\"" + share + "\",\"operation\":\"" + kind + "\",\"path\":\"" + path
                        + "\",\"bytes\":" + bytes + "}");
        return reply.status() == 404 || !reply.json().path("allowed").asBoolean() ? reply.text() : "allowed";
    }

    private static Long[] usage(String volume) {
        return DB.fetchSingle(
                        "SELECT live_bytes, snapshot_bytes, borrowed_bytes FROM volume_usage WHERE volume = ?", volume)
                .into(Long[].class);
    }

    private static void snapshot(String volume, String name) {
        assertThat(App.post("odile", "/api/v1/volumes/" + volume + "/snapshots", "{\"name\":\"" + name + "\"}")
                        .status())
                .isEqualTo(200);
    }

    private static String delete(String volume, int number) {
        return App.post("odile", "/api/v1/volumes/" + volume + "/snapshots/delete", "{\"numbers\":[" + number + "]}")
                .detail();
    }

    private static void agrees() {
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
        KeptCheck.Report kept = App.bean(KeptCheck.class).look();
        assertThat(kept.mended() + kept.missing()).isZero();
    }

    @Test
    void a_snapshot_is_written_to_takes_what_differs_and_becomes_independent() {
        Drafts.discardAll();
        Drafts.carryOut(FEN);
        for (int i = 0; i < 3; i++) {
            assertThat(answer("fen", "WRITE", "/deep/er/a" + i + ".odt", 10 * BLOCK))
                    .isEqualTo("allowed");
        }
        App.send(
                "suki",
                "PUT",
                "/api/v1/desk/contents?person=suki&share=fen&path=/said.txt",
                "what somebody really saved".getBytes(StandardCharsets.UTF_8));
        snapshot("fen", "then");
        assertThat(answer("fen", "DELETE", "/deep/er/a0.odt", 0)).isEqualTo("allowed");
        byBrowser();
        assertThat(usage("fen-then")).containsExactly(31 * BLOCK, 0L, 31 * BLOCK);
        assertThat(answer("fen-then", "READ", "/deep/er/a0.odt", 0))
                .as("as it was")
                .isEqualTo("allowed");
        assertThat(App.get("suki", "/api/v1/desk/contents?person=suki&share=fen-then&path=/said.txt")
                        .text())
                .isEqualTo("what somebody really saved");
        assertThat(answer("fen-then", "WRITE", "/deep/er/a0.odt", 4 * BLOCK)).isEqualTo("allowed");
        assertThat(answer("fen-then", "DELETE", "/deep/er/a1.odt", 0)).isEqualTo("allowed");
        assertThat(usage("fen-then")).containsExactly(15 * BLOCK, 20 * BLOCK, 31 * BLOCK);
        assertThat(App.get("odile", "/api/v1/volumes?limit=1000").text())
                .contains("\"borrowed\":{\"live\":" + 11 * BLOCK + ",\"snapshots\":" + 20 * BLOCK + "}");
        assertThat(answer("fen", "READ", "/deep/er/a1.odt", 0)).as("untouched").isEqualTo("allowed");
        CloneComparison.Part compared = App.bean(CloneComparison.class).some("fen", 1, "fen-then", "");
        assertThat(compared.files()).isEqualTo(4);
        assertThat(compared.differing()).as("one is otherwise, one is gone").isEqualTo(2);
        assertThat(compared.named()).isEqualTo("/deep/er/a0.odt");
        assertThat(compared.readFiles()).isEqualTo(2);
        agrees();
        assertThat(delete("fen", 1)).contains("can't be deleted: clone fen-then shares its blocks");
        assertThat(delete("fen-then", 1)).contains("can't be deleted: the clone shares blocks with it");

        Drafts.carryOut("{\"change\":\"SeparateClone\",\"name\":\"fen-then\"}");
        assertThat(usage("fen-then")).containsExactly(15 * BLOCK, 0L, 0L);
        assertThat(delete("fen", 1)).isEmpty();
        agrees();
        anotherOfTheSameName();
    }

    private static void byBrowser() {
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            page.navigate("/protect/volumes/fen");
            page.locator("a", new Page.LocatorOptions().setHasText("clone"))
                    .first()
                    .click();
            page.getByLabel("Called").fill("Fen Then");
            page.getByText("Add to the draft").click();
            assertThat(page.locator(".wrong").first()).containsText("name of the clone is 'Fen Then'");
            page.getByLabel("Called").fill("fen-then");
            page.getByText("Add to the draft").click();
            assertThat(page.locator("body")).containsText("It takes no room at first");
            Drafts.carryOut(page);
            page.navigate("/protect/clones");
            assertThat(page.locator("#clones")).containsText("fen-then");
            page.navigate("/build/volumes/fen-then");
            assertThat(page.locator("main dl.pair")).containsText("snapshot 1: shares 124.00 KiB");
            page.navigate("/protect/clones?volume=fen&snapshot=1");
            assertThat(browser.errors).isEmpty();
        }
    }

    /** What a clone left under its name is not in the next one. */
    private static void anotherOfTheSameName() {
        snapshot("fen", "later");
        Drafts.carryOut("{\"change\":\"CloseShare\",\"share\":\"fen-then\"},"
                + "{\"change\":\"RemoveVolume\",\"volume\":\"fen-then\"}");
        Drafts.carryOut(clone("fen", 2, "fen-then"));
        assertThat(usage("fen-then")).containsExactly(21 * BLOCK, 0L, 21 * BLOCK);
        assertThat(answer("fen-then", "READ", "/deep/er/a0.odt", 0)).isNotEqualTo("allowed");
        agrees();
        assertThat(Drafts.checks(clone("fen", 9, "fen-nine"))).contains("There is no snapshot 9 of volume fen");
        assertThat(App.post("bram", "/api/v1/orders", "{\"changes\":[" + clone("fen", 2, "brams") + "]}")
                        .status())
                .isEqualTo(403);
        Drafts.carryOut("{\"change\":\"CloseShare\",\"share\":\"fen-then\"},"
                + "{\"change\":\"RemoveVolume\",\"volume\":\"fen-then\"},{\"change\":\"CloseShare\",\"share\":\"fen\"},"
                + "{\"change\":\"RemoveVolume\",\"volume\":\"fen\"}");
        agrees();
    }
}
