package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
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
    void a_file_and_a_folder_are_named_copied_edited_and_removed_by_keyboard() {
        try (Browser browser = new Browser(1280, 800).signIn("suki")) {
            Page page = browser.page;
            page.navigate("/desk?person=suki&share=film&path=/");
            type(page, "Name of the folder", "hands");
            assertThat(said(page)).isEqualTo("● allowed make folder /hands");
            page.navigate("/desk?person=suki&share=film&path=/hands");
            page.setInputFiles(
                    "input[type=file]",
                    new FilePayload("first.txt", "text/plain", "leaf".getBytes(StandardCharsets.UTF_8)));
            page.locator("text=Save it here").press("Enter");
            page.locator("[aria-label='Choose first.txt']").press("Enter");
            assertThat(page.locator(".panel").textContent()).contains("text/plain", "4 (4 B)");
            type(page, "Text", "s fall");
            assertThat(said(page)).isEqualTo("● allowed edit /hands/first.txt");
            page.getByLabel("From byte", new Page.GetByLabelOptions().setExact(true))
                    .fill("0");
            type(page, "Text", "L");
            page.navigate("/desk?person=suki&share=film&path=/hands&chosen=first.txt");
            type(page, "New path on film", "/hands/second.txt");
            assertThat(said(page)).isEqualTo("● allowed move /hands/first.txt to /hands/second.txt");
            page.navigate("/desk?person=suki&share=film&path=/&chosen=hands");
            type(page, "Path of the copy", "/hands-again");
            assertThat(said(page)).isEqualTo("● allowed copy folder /hands-again");
            page.navigate("/desk?person=suki&share=film&path=/hands-again");
            Download download = page.waitForDownload(
                    () -> page.locator("[aria-label='Read second.txt']").press("Enter"));
            assertThat(download.createReadStream().readAllBytes())
                    .isEqualTo("Leafs fall".getBytes(StandardCharsets.UTF_8));
            for (String folder : List.of("hands", "hands-again")) {
                page.navigate("/desk?person=suki&share=film&path=/&chosen=" + folder);
                page.locator("text=Remove the folder and all in it").press("Enter");
                assertThat(said(page)).isEqualTo("● allowed remove folder /" + folder);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void type(Page page, String label, String text) {
        var field = page.getByLabel(label, new Page.GetByLabelOptions().setExact(true));
        field.fill(text);
        field.press("Enter");
    }

    private static String said(Page page) {
        return page.locator("h2[role=status]").textContent();
    }

    @Test
    void what_can_t_be_done_is_told_at_its_field_and_nothing_typed_is_lost() {
        try (Browser browser = new Browser(1280, 800).signIn("suki")) {
            Page page = browser.page;
            page.navigate("/desk?person=suki&share=film&path=/&chosen=cuts");
            type(page, "New path on film", "no-slash");
            assertThat(page.getByLabel("New path on film").inputValue()).isEqualTo("no-slash");
            assertThat(page.locator("main").textContent()).contains("path is 'no-slash', must begin with '/'");
            type(page, "New path on film", "/cuts/below");
            assertThat(page.locator("main").textContent()).contains("'/cuts' can't go into itself");
        }
    }
}
