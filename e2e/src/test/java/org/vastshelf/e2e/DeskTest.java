package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

/** Files that somebody saves from a browser come back as they were. */
class DeskTest {

    @Test
    void a_saved_file_is_read_back_byte_for_byte_and_gone_after_its_deletion() throws IOException {
        byte[] contents = "root, stem, leaf\u0000\u00ff".getBytes(StandardCharsets.UTF_8);
        try (Browser browser = new Browser(1280, 800).signIn("suki")) {
            browser.page.navigate("/desk?person=suki&share=film&path=/desk-test");
            browser.page.setInputFiles("input[type=file]", new FilePayload("notes.txt", "text/plain", contents));
            browser.page.locator("text=Save it here").click();
            assertThat(browser.page.locator("h2[role=status]").textContent())
                    .isEqualTo("● allowed write /desk-test/notes.txt");
            Download download = browser.page.waitForDownload(
                    () -> browser.page.locator("[aria-label='Read notes.txt']").click());
            assertThat(download.suggestedFilename()).isEqualTo("notes.txt");
            assertThat(download.createReadStream().readAllBytes()).isEqualTo(contents);
            browser.page.locator("[aria-label='Delete notes.txt']").click();
            assertThat(browser.page.locator("main").textContent()).contains("Nothing here yet.");
        }
    }

    @Test
    void a_file_that_only_has_a_record_says_so() {
        try (Browser browser = new Browser(1280, 800).signIn("suki")) {
            browser.page.navigate("/desk?person=suki&share=film&path=/cuts/2023");
            browser.page.locator("[aria-label^='Read ']").first().click();
            assertThat(browser.page.locator("main").textContent()).contains("has no contents to hand out");
        }
    }
}
