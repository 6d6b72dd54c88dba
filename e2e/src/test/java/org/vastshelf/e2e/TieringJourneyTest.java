package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.away.AwaySweep;
import org.vastshelf.app.snapshot.HoldCheck;

/** Lightening a share, the way an administrator goes, by the keyboard. */
class TieringJourneyTest {

    private static final int KIB = 1_024;
    private static final ShareHand TARN = new ShareHand("tarn");

    @BeforeAll
    static void share() {
        store("ANSWERS");
        Drafts.discardAll();
        Drafts.carryOut(TARN.made());
    }

    @AfterAll
    static void answers() {
        store("ANSWERS");
        Drafts.carryOut("{\"change\":\"DropTiering\",\"name\":\"tarn-old\"},"
                + "{\"change\":\"DropTiering\",\"name\":\"tarn-full\"}");
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
    }

    private static void store(String manner) {
        assertThat(App.post("odile", "/api/v1/bench/store", "{\"manner\":\"" + manner + "\"}")
                        .status())
                .isEqualTo(200);
    }

    private static void later(int hours) {
        assertThat(App.post("odile", "/api/v1/time", "{\"hours\":" + hours + "}")
                        .status())
                .isLessThan(300);
    }

    private static void press(Locator button) {
        button.focus();
        button.press("Enter");
    }

    private static void press(Page page, String button) {
        press(page.locator("main button", new Page.LocatorOptions().setHasText(button)));
    }

    /** The pages look again each two seconds while something runs. */
    private static void awaitRun(Page page, String said) {
        for (int i = 0;
                i < 20 && !page.locator("#runs tbody tr").first().textContent().contains(said);
                i++) {
            later(1);
            page.waitForTimeout(1_000);
        }
        assertThat(page.locator("#runs tbody tr").first()).containsText(said);
    }

    @Test
    void measured_switched_on_without_films_and_then_with_them() {
        byte[] talk = ShareHand.random(640 * KIB, 1);
        TARN.save("/talks/moor.odp", talk);
        TARN.copy("/talks/moor.odp", "/talks/moor again.odp");
        TARN.save("/clips/bog.mp4", ShareHand.random(1_280 * KIB, 2));
        TARN.copy("/clips/bog.mp4", "/clips/bog final.mp4");
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            page.navigate("/lighten/volumes/tarn");
            assertThat(page.locator("main")).containsText("Measure it, and it is told here by kind");
            press(page.locator("a[href='/lighten/catalogues/tarn']"));
            page.locator("select[name=cut]").selectOption("FIXED_4");
            press(page, "Measure it");
            assertThat(page.locator("#runs")).containsText("Which files share most");
            assertThat(page.locator("#runs"))
                    .containsText(Pattern.compile("films.*1.25 MiB.*66.7 %.*documents.*33.3 %", Pattern.DOTALL));

            page.navigate("/lighten/volumes/tarn");
            assertThat(page.locator("main"))
                    .containsText(Pattern.compile("What leaving files out costs.*films.*66.7 %", Pattern.DOTALL));
            rule(page, "films");
            page.navigate("/lighten/volumes/tarn");
            press(page, "Do it now");
            awaitRun(page, "done");
            assertThat(page.locator("#runs dl")).containsText("640.00 KiB");
            page.navigate("/build/volumes/tarn");
            assertThat(page.locator("main")).containsText("640.00 KiB");

            rule(page, "");
            page.navigate("/lighten/volumes/tarn");
            press(page, "Do it now");
            awaitRun(page, "done");
            assertThat(page.locator("#runs dl")).containsText("1.88 MiB");
            assertThat(browser.errors).isEmpty();
        }
    }

    private static void rule(Page page, String except) {
        page.navigate("/lighten/volumes/tarn");
        page.locator("select[name=aim]").selectOption("ONCE");
        page.locator("select[name=unit]").selectOption("4096");
        page.fill("[name=days]", "0");
        page.fill("[name=kinds]", "moving pictures");
        press(page, "Add to the draft");
        assertThat(page.locator("[role=alert]"))
                .containsText("'moving pictures' is no kind, must be of pictures, films");
        assertThat(page.locator("[name=days]")).hasValue("0");
        page.fill("[name=kinds]", except);
        press(page, "Add to the draft");
        Drafts.carryOut(page);
    }

    @Test
    void what_is_old_leaves_is_read_written_to_deleted_and_its_first_version_brought_back() throws Exception {
        byte[] first = ShareHand.random(300 * KIB, 7);
        TARN.save("/old/plan.bin", first);
        TARN.save("/old/other.bin", ShareHand.random(300 * KIB, 8));
        later(72);
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            page.navigate("/lighten/rules");
            page.fill("[name=name]", "tarn-old");
            page.fill("[name=places]", "tarn:/old");
            page.fill("[name=days]", "2");
            page.locator("select[name=by]").selectOption("LAST_CHANGE");
            page.fill("[name=larger]", "1 KiB");
            page.locator("select[name=store]").selectOption("peat");
            page.fill("[name=keepDays]", "30");
            press(page, "Add to the draft");
            Drafts.carryOut(page);
            store("BUSY");
            page.navigate("/lighten/rules/tarn-old");
            press(page, "Run it now");
            assertThat(page.locator("#runs tbody tr").first()).containsText("under way");
            assertThat(TARN.contents("/old/plan.bin").isCold())
                    .as("nothing leaves while the store is cut off")
                    .isFalse();
            store("ANSWERS");
            awaitRun(page, "through");
            assertThat(page.locator("#runs tbody tr").first()).containsText("600.00 KiB");
            assertThat(page.locator("#runs tbody tr").first()).not().containsText("HTTP");
            assertThat(TARN.contents("/old/plan.bin").isCold()).isTrue();
            assertThat(TARN.read("/old/plan.bin")).isEqualTo(first);

            TARN.edit("/old/plan.bin", 5, (byte) 1, (byte) 2);
            assertThat(TARN.contents("/old/plan.bin").isCold())
                    .as("what is written to is here whole")
                    .isFalse();
            TARN.remove("/old/plan.bin");
            App.bean(AwaySweep.class).sweep();
            page.navigate("/lighten/left?share=tarn&text=plan");
            press(page.locator("main table a", new Page.LocatorOptions().setHasText("/old/plan.bin")));
            press(page.locator("main form button").last());
            page.waitForLoadState();
            assertThat(TARN.read("/old/plan.bin")).isEqualTo(first);
            assertThat(browser.errors).isEmpty();
        }
    }

    @Test
    void only_as_much_leaves_as_is_needed_and_who_reads_it_all_is_held_back() throws Exception {
        for (String film : List.of("first", "second", "third")) {
            TARN.saveMade("/films/" + film + ".mov", 1L << 30);
            later(24);
        }
        for (int i = 0; i <= 60; i++) {
            TARN.save("/films/still " + i + ".bin", ShareHand.random(2 * KIB, i));
        }
        later(48);
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            // Of 8 GiB 20 per cent are 1.6 GiB: of three films one may stay, and of what is younger all.
            page.navigate("/lighten/leaving/tarn?days=1&by=LAST_CHANGE&within=/films&percent=20&store=peat");
            assertThat(page.locator("#plan strong")).containsText("2.00 GiB in 2 files");
            assertThat(page.locator("#plan")).containsText("enough is free without it");
            fullRule(page, "/lighten/rules", "20");
            page.navigate("/lighten/rules/tarn-full");
            press(page, "Run it now");
            awaitRun(page, "through");
            assertThat(page.locator("#runs tbody tr").first()).containsText("2.00 GiB");
            assertThat(TARN.contents("/films/second.mov").isCold()).isTrue();
            assertThat(TARN.contents("/films/third.mov").isCold()).isFalse();

            fullRule(page, "/lighten/rules/tarn-full", "");
            page.navigate("/lighten/rules/tarn-full");
            press(page, "Run it now");
            awaitRun(page, "through");
            for (int i = 0; i < 60; i++) {
                assertThat(readByPell(i).status()).isEqualTo(200);
            }
            assertThat(readByPell(60).detail()).contains("pell", "has read more than 60 files");
            page.navigate("/look");
            assertThat(page.locator("main")).containsText("pell");
            page.navigate("/lighten/left");
            assertThat(page.locator("main")).containsText("Held back");
            press(page.locator("main button:has-text('let it read on')"));
            assertThat(page.locator("text=Held back")).hasCount(0);
            assertThat(readByPell(60).status()).isEqualTo(200);
            assertThat(browser.errors).isEmpty();
        }
    }

    private static App.Reply readByPell(int still) {
        return App.get("pell", "/api/v1/desk/contents?person=pell&share=tarn&path=/films/still%20" + still + ".bin");
    }

    /** Made, or changed. */
    private static void fullRule(Page page, String at, String percent) {
        page.navigate(at);
        if (at.endsWith("/rules")) {
            page.fill("[name=name]", "tarn-full");
        }
        page.fill("[name=places]", "tarn:/films");
        page.fill("[name=days]", "1");
        page.locator("select[name=by]").selectOption("LAST_CHANGE");
        page.fill("[name=larger]", "1 KiB");
        page.locator("select[name=store]").selectOption("peat");
        page.fill("[name=percent]", percent);
        press(page, "Add to the draft");
        Drafts.carryOut(page);
    }
}
