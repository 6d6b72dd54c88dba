package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What people type into forms by mistake: a message beside it, and nothing lost. */
class FormsTest {

    private static Browser browser;
    private static Page page;

    @BeforeAll
    static void open() {
        browser = new Browser(1280, 800).signIn("odile");
        page = browser.page;
    }

    @AfterAll
    static void close() {
        browser.close();
    }

    @AfterEach
    void quiet() {
        assertThat(browser.errors).isEmpty();
    }

    private static void add() {
        page.locator(".composer button.first").click();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'' | 1 TiB | volume name is empty, must be 1 to 40 characters",
                "<i>x</i> | 1 TiB | volume name is '<i>x</i>', must be lower-case letters, digits, '.', '_' and '-', beginning with a letter or digit",
                "new | -1 TiB | volume size is '-1 TiB', must be a size such as 750 GiB or 1.5 TB",
                "new | 0 | volume size is 0, must be at least 1.00 GiB",
                "new | 5000 TiB | volume size is 5000 TiB, must be at most 1.00 PiB",
                "new | plenty | volume size is 'plenty', must be a size such as 750 GiB or 1.5 TB",
            })
    void a_volume_that_cannot_be(String name, String size, String message) {
        page.navigate("/build/new/volume?pool=oak");
        page.fill("[name=name]", name);
        page.fill("[name=size]", size);
        page.locator("[name=blockSize]").selectOption("262144");
        add();
        assertThat(page.locator("[role=alert]")).hasText(message);
        assertThat(page.locator("[name=size]")).hasValue(size);
        assertThat(page.locator("[name=blockSize]")).hasValue("262144");
        assertThat(page.locator("[name=pool]")).hasValue("oak");
    }

    @Test
    void a_name_of_two_hundred_characters_is_refused_and_kept() {
        page.navigate("/build/new/volume?pool=oak");
        page.fill("[name=name]", "n".repeat(200));
        add();
        assertThat(page.locator("[role=alert]")).hasText("volume name has 200 characters, must be at most 40");
        assertThat(page.locator("[name=name]")).hasValue("n".repeat(200));
        assertThat(page.evaluate("() => document.documentElement.scrollWidth")).isEqualTo(1280);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "group nobody write | There is no group 'nobody' in the directory",
                "ghost read | There is nobody 'ghost' in the directory",
                "suki fly | access level is 'fly', must be read, write or own",
                "suki | access line is 'suki', must be like 'group education-film write', 'suki read' or 'everyone read'",
            })
    void access_that_nobody_can_have(String line, String message) {
        page.navigate("/serve/new?volume=replica-herbarium");
        page.fill("[name=access]", line);
        add();
        assertThat(page.locator("[role=alert]")).hasText(message);
        assertThat(page.locator("[name=access]")).hasValue(line);
    }

    @Test
    void a_share_needs_a_protocol() {
        page.navigate("/serve/new?volume=replica-herbarium");
        page.locator("[name=smb]").uncheck();
        add();
        assertThat(page.locator("[role=alert]"))
                .hasText("share 'replica-herbarium' has no protocol, must have SMB, NFS or both");
        assertThat(page.locator("[name=smb]")).not().isChecked();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "cuts | 5 GiB | path is 'cuts', must begin with '/'",
                "/a/../b | 5 GiB | path has the part '..', must not be empty, '.', '..' or hold NUL",
                "/cuts | 9999 PiB | stop level is 9999 PiB, must be at most 1.00 PiB",
            })
    void a_limit_that_cannot_be(String path, String stop, String message) {
        page.navigate("/limit/new?share=film");
        page.fill("[name=path]", path);
        page.fill("[name=stopAt]", stop);
        add();
        assertThat(page.locator("[role=alert]")).hasText(message);
        assertThat(page.locator("[name=path]")).hasValue(path);
    }

    @Test
    void a_rule_is_changed_from_what_it_is_now() {
        page.navigate("/limit");
        page.locator("tr", new Page.LocatorOptions().setHasText("homes /"))
                .first()
                .getByText("change")
                .click();
        assertThat(page.locator("[name=stopAt]")).hasValue("150.00 GiB");
        assertThat(page.locator("[name=graceHours]")).hasValue("168");
        assertThat(page.locator("[name=whose][value=CHILD]")).isChecked();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'' | 1 GiB | file name is '', must not be empty or hold a slash",
                "a/b | 1 GiB | file name is 'a/b', must not be empty or hold a slash",
                ".. | 1 GiB | path has the part '..', must not be empty, '.', '..' or hold NUL",
                "a.mov | 90 TiB | file size is 90 TiB, must be at most 64.00 TiB",
            })
    void a_file_that_cannot_be_saved_at_all(String name, String size, String message) {
        page.navigate("/desk?person=suki&share=film");
        page.fill("main [name=name]", name);
        page.fill("[name=size]", size);
        page.locator("button:text-is('Save')").click();
        assertThat(page.locator("[role=alert]")).hasText(message);
    }

    @Test
    void names_in_folders_are_text_and_never_markup() {
        page.navigate("/desk?person=suki&share=film&path=/cuts");
        page.fill("main [name=name]", "<img src=x onerror=alert(1)>.mov");
        page.fill("[name=size]", "1 MiB");
        page.locator("button:text-is('Save')").click();
        assertThat(page.locator("[role=status]")).containsText("allowed");
        assertThat(page.locator("main img")).hasCount(0);
        page.navigate("/trace?person=suki&share=film");
        assertThat(page.locator("tbody tr").first()).containsText("<img src=x onerror=alert(1)>.mov");
        assertThat(page.locator("main img")).hasCount(0);
    }

    @Test
    void grace_is_granted_and_ends_when_the_clock_says_so() {
        long fiveGibLeft = clientFree() - 5L * (1L << 30);
        App.Reply first = write("grow.mov", fiveGibLeft);
        assertThat(first.json().path("verdict").toString()).contains("over the grace level of 140.00 GiB");
        assertThat(first.json().path("allowed").asBoolean()).isTrue();
        App.post("odile", "/api/v1/time", "{\"hours\":170}");
        App.Reply late = write("more.mov", 100_000);
        assertThat(late.json().path("allowed").asBoolean()).isFalse();
        assertThat(late.json().path("reason").asString()).contains("and the grace time ended");
        assertThat(write("grow.mov", 5).json().path("allowed").asBoolean()).isTrue();
        assertThat(write("more.mov", 100_000).json().path("allowed").asBoolean())
                .isTrue();
    }

    private static App.Reply operate(String operation, String name, long bytes) {
        return App.post(
                "odile",
                "/api/v1/desk/operations",
                "{\"person\":\"pell\",\"share\":\"homes\",\"operation\":\"" + operation + "\",\"path\":\"/pell/" + name
                        + "\",\"bytes\":" + bytes + "}");
    }

    private static App.Reply write(String name, long bytes) {
        return operate("WRITE", name, bytes);
    }

    private static long clientFree() {
        return operate("LIST", "2023", 0)
                .json()
                .path("clientSpace")
                .path("free")
                .asLong();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "grow   | amount  | lots     | growth is 'lots', must be a whole number of per cent from 1 to 1000",
                "alarm  | percent | 101      | alarm level is '101', must be a whole number of per cent from 1 to 100",
                "growth | trigger | 95 %     | trigger is '95 %', must be a whole number of per cent from 1 to 90",
                "growth | ceiling | far      | ceiling is 'far', must be a size such as 750 GiB or 1.5 TB",
                "growth | pauseHours | soon  | pause is 'soon', must be a whole number",
            })
    void what_cannot_be_done_to_a_volume(String form, String field, String typed, String message) {
        page.navigate("/build/volumes/film");
        var wanted = page.locator("form[action$='/" + form + "']").first();
        wanted.locator("[name=" + field + "]").fill(typed);
        page.waitForTimeout(500);
        wanted.locator("button").first().click();
        assertThat(page.locator("[role=alert]")).hasText(message);
        assertThat(page.locator("form[action$='/" + form + "'] [name=" + field + "]")
                        .first())
                .hasValue(typed);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "reserve | size | -5   | reserve is '-5', must be a size such as 750 GiB or 1.5 TB",
                "reserve | size | 95 % | reserve is '95 %', must be a whole number of per cent from 0 to 90",
                "scrub   | recurrence | FREQ=SECONDLY | recurrence rule 'FREQ=SECONDLY' counts seconds,"
                        + " must be minutes or more",
            })
    void what_cannot_be_done_to_a_pool(String form, String field, String typed, String message) {
        page.navigate("/build/pools/ash");
        var wanted = page.locator("form[action$='/" + form + "']").last();
        wanted.locator("[name=" + field + "]").fill(typed);
        wanted.locator("button").click();
        assertThat(page.locator("[role=alert]")).hasText(message);
        assertThat(page.locator("form[action$='/" + form + "'] [name=" + field + "]")
                        .last())
                .hasValue(typed);
    }

    @Test
    void a_supposition_that_cannot_be_says_why_and_keeps_what_was_typed() {
        page.navigate("/build/what-if?pool=oak&drives=1&size=12+TB&layout=RAID_10");
        assertThat(page.locator("[role=alert]"))
                .hasText(
                        "RAID 10 needs an even number of drives, 9 are taken; choose one more, or keep one as hot spare");
        assertThat(page.locator("[name=drives]")).hasValue("1");
        page.navigate("/build/what-if?pool=oak&drives=2&size=plenty");
        assertThat(page.locator("[role=alert]"))
                .hasText("drive size is 'plenty', must be a size such as 750 GiB or 1.5 TB");
    }

    @Test
    void a_file_that_is_no_definition_is_refused() {
        page.navigate("/build/definitions");
        page.setInputFiles(
                "input[type=file]",
                new com.microsoft.playwright.options.FilePayload("x.json", "application/json", "{\"a\":".getBytes()));
        page.locator("text=Bring it in").click();
        assertThat(page.locator("[role=alert]")).containsText("The file can't be read:");
        page.fill("[name=name]", "Not A Name");
        page.locator("text=Save the template").click();
        assertThat(page.locator("[role=alert]")).containsText("template name is 'Not A Name', must be lower-case");
        assertThat(page.locator("[name=name]")).hasValue("Not A Name");
    }

    @Test
    void folded_fronts_and_volumes_by_a_part_of_their_name_are_fetched() {
        assertThat(fetched("/build/fronts?server=fernhill&number=3"))
                .contains("Front of enclosure 3", "/build/drives/fernhill/3/1")
                .doesNotContain("<html", "Front of enclosure 1");
        assertThat(fetched("/build/volumes?q=herb"))
                .contains("/build/volumes/herbarium", "/build/volumes/replica-herbarium")
                .doesNotContain("/build/volumes/film");
        assertThat(fetched("/build/volumes?q=nowhere")).doesNotContain("<td");
    }

    private String fetched(String path) {
        return page.request().get(App.URL + path).text();
    }

    @Test
    void the_bench_names_what_is_not_there() {
        page.navigate("/build/bench");
        page.fill("input[name=drive]", "fernhill/1/99");
        page.locator("text=Put it in").click();
        assertThat(page.locator("[role=alert]")).hasText("There is no bay 'fernhill/1/99'");
        assertThat(page.locator("input[name=drive]")).hasValue("fernhill/1/99");
    }
}
