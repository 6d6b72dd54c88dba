package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;

/** From unclaimed drives to a refused save and a fill date, the way an administrator goes. */
class JourneyTest {

    @Test
    void from_a_drive_to_a_fill_date() {
        Drafts.discardAll();
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            composePool(page);
            composeVolume(page);
            openShare(page);
            setLimit(page);
            saveUntilRefused(page);
            readAuditLine(page);
            readFillDate(page);
            assertThat(browser.errors).isEmpty();
        }
    }

    private static void composePool(Page page) {
        verb(page, 2, "build");
        assertThat(page.locator("h1")).hasText("What is in the bays, and what was made of it?");
        page.keyboard().press("c");
        page.waitForURL("**/build/new/pool**");
        page.waitForLoadState();
        page.locator("select[name=server]").selectOption("dewpond");
        page.getByText("Choose its drives").press("Enter");
        assertThat(page.locator(".bay-choice")).hasCount(3);
        for (int bay = 1; bay <= 3; bay++) {
            page.locator("input[value='dewpond/1/" + bay + "']").focus();
            page.keyboard().press("Space");
        }
        assertThat(page.locator("#consequence")).containsText("3 drives chosen: 3 × 6 TB");
        assertThat(page.locator("#consequence tr", new Page.LocatorOptions().setHasText("RAID 5"))
                        .first())
                .containsText("10.91");
        assertThat(page.locator("#consequence")).containsText("RAID 6 needs at least 4 drives, 3 are taken");
        page.locator("input[value=RAID_5]").check();
        page.fill("[name=name]", "Not a name");
        page.waitForTimeout(600);
        page.locator("#consequence button.first").click();
        assertThat(page.locator("[role=alert]")).containsText("pool name is 'Not a name', must be lower-case");
        assertThat(page.locator("input[value='dewpond/1/2']")).isChecked();
        page.fill("[name=name]", "birch");
        page.waitForTimeout(600);
        page.locator("#consequence button.first").click();
        assertThat(page.locator("#drawer")).containsText("Compose pool birch of 3 drives, RAID 5");
        assertThat(page.locator("#drawer")).containsText("∎ for ever: The layout of birch can't be changed");
        strikeAndRestore(page);
        Drafts.carryOut(page);
        page.navigate("/build/pools/birch");
        assertThat(page.locator("main .lead")).containsText("10.91 TiB of data by the labels");
        assertLedgerAddsUp(page);
        page.keyboard().press("u");
        assertThat(page.locator("main .lead")).containsText("12.00 TB of data by the labels");
        page.waitForLoadState();
        page.keyboard().press("u");
        assertThat(page.locator("main .lead")).containsText("10.91 TiB");
    }

    /** By its key; the next key is only heard when the page's script is there. */
    private static void verb(Page page, int key, String path) {
        page.keyboard().press("Alt+" + key);
        page.waitForURL("**/" + path + "**");
        page.waitForLoadState();
    }

    private static void strikeAndRestore(Page page) {
        Locator drawer = page.locator("#drawer");
        drawer.getByText("strike").click();
        assertThat(drawer.locator(".struck")).hasText("Compose pool birch of 3 drives, RAID 5");
        assertThat(page.locator("#carry-out")).isDisabled();
        drawer.getByText("restore").click();
        assertThat(drawer.locator(".struck")).hasCount(0);
    }

    private static void assertLedgerAddsUp(Page page) {
        var bytes = page.locator("table").first().locator("tbody tr td:nth-child(3)").allTextContents().stream()
                .map(text -> Long.parseLong(text.replace(",", "")))
                .toList();
        assertThat(bytes.getFirst()).isEqualTo(18_000_000_000_000L);
        assertThat(bytes.stream().skip(1).mapToLong(Long::longValue).sum()).isEqualTo(bytes.getFirst());
    }

    private static void composeVolume(Page page) {
        page.navigate("/build/pools/birch");
        page.keyboard().press("c");
        page.fill("[name=name]", "seeds");
        page.fill("[name=size]", "80 TiB");
        page.locator("input[name=thin][value=false]").check();
        assertThat(page.locator("#consequence")).containsText("does not fit");
        page.fill("[name=size]", "4 TiB");
        assertThat(page.locator("#consequence")).containsText("after");
        page.locator(".composer button.first").click();
        assertThat(page.locator("#drawer")).containsText("Compose volume seeds on birch");
        Drafts.carryOut(page);
    }

    private static void openShare(Page page) {
        page.navigate("/build/volumes/seeds");
        page.keyboard().press("c");
        page.fill("[name=access]", "group education-film write");
        page.locator("[name=nfs]").check();
        page.fill("[name=exports]", "10.20.0.0/99 write");
        page.locator(".composer button.first").click();
        assertThat(page.locator("[role=alert]")).hasText("prefix of '10.20.0.0/99' is 99, must be 0 to 32");
        page.fill("[name=exports]", "10.20.0.0/16 write");
        page.locator(".composer button.first").click();
        Drafts.carryOut(page);
        page.navigate("/serve/shares/seeds");
        assertThat(page.locator(".command").first())
                .hasText("sudo mount -t cifs //dewpond.larkmoor.example/seeds /mnt/seeds"
                        + " -o username=odile,vers=3.1.1,seal");
        assertThat(page.locator("[data-copy]")).hasCount(6);
    }

    private static void setLimit(Page page) {
        verb(page, 4, "limit");
        page.keyboard().press("c");
        page.locator("[name=share]").selectOption("seeds");
        page.fill("[name=path]", "/cuts");
        page.fill("[name=warnAt]", "20 GiB");
        page.fill("[name=stopAt]", "10 GiB");
        page.locator(".composer button.first").click();
        assertThat(page.locator("[role=alert]")).containsText("stop level is 10737418240 bytes, must be at least");
        page.fill("[name=warnAt]", "8 GiB");
        page.locator(".composer button.first").click();
        Drafts.carryOut(page);
    }

    private static void saveUntilRefused(Page page) {
        page.navigate("/desk?person=suki&share=seeds&path=/cuts");
        save(page, "a.mov", "6 GiB");
        assertThat(page.locator("[role=status]")).containsText("allowed");
        assertThat(page.locator("main")).containsText("10.00 GiB in all, 4.00 GiB free");
        save(page, "b.mov", "5 GiB");
        assertThat(page.locator("[role=status]")).containsText("refused");
        assertThat(page.locator("main"))
                .containsText(
                        "Limit of /cuts (Stop) holds 6.00 GiB and may hold 10.00 GiB; this save would exceed it by 1.00 GiB.");
        assertThat(page.locator("main")).containsText("What to do: remove at least 1.00 GiB from /cuts.");
        page.locator("[aria-label='Delete a.mov']").click();
        assertThat(page.locator("main")).containsText("10.00 GiB in all, 10.00 GiB free");
        page.locator("input[type=file]")
                .setInputFiles(
                        new com.microsoft.playwright.options.FilePayload("note.txt", "text/plain", new byte[700]));
        page.getByText("Save it here").click();
        assertThat(page.locator("table").last()).containsText("note.txt");
    }

    private static void save(Page page, String name, String size) {
        page.fill("[name=name]", name);
        page.fill("[name=size]", size);
        page.keyboard().press("Enter");
    }

    private static void readAuditLine(Page page) {
        page.keyboard().press("Escape");
        page.navigate("/trace?person=suki&share=seeds&verdict=REFUSED");
        assertThat(page.locator("tbody tr")).hasCount(1);
        assertThat(page.locator("tbody tr")).containsText("seeds/cuts/b.mov");
    }

    private static void readFillDate(Page page) {
        verb(page, 1, "look");
        page.locator("a[href='/foresee/volume/homes']").first().click();
        assertThat(page.locator("main .lead")).containsText("Likely on");
        assertThat(page.locator(".uplot canvas")).isVisible();
    }
}
