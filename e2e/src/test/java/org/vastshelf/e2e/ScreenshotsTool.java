package org.vastshelf.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.WaitForSelectorState;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/** Makes the pictures in docs/screenshots; run by ./shelf shots. */
@EnabledIfSystemProperty(named = "vastshelf.shots", matches = ".+")
class ScreenshotsTool {

    private static final String POOL = "/build/new/pool?server=fernhill&drives=fernhill/3/5&drives=fernhill/3/6"
            + "&drives=fernhill/3/7&drives=fernhill/3/8&drives=fernhill/3/9&drives=fernhill/3/10";

    @Test
    void take() throws Exception {
        Path folder = Path.of("..").resolve(System.getProperty("vastshelf.shots"));
        Map<String, String> views = new LinkedHashMap<>();
        views.put("look", "/look");
        views.put("build", "/build?scope=fernhill");
        views.put("pool", "/build/pools/ash");
        views.put("serve", "/serve");
        views.put("share", "/serve/shares/herbarium");
        views.put("limit", "/limit");
        views.put("desk", "/desk?person=suki&share=film&path=/cuts");
        views.put("trace", "/trace");
        views.put("foresee", "/foresee/volume/herbarium");
        views.put(
                "suppose",
                "/foresee/volume/film/suppose?project=3+TiB&projectFrom=2026-06-01&projectDays=60&gone=1+TiB&goneOn=2026-09-01");
        views.put("folder", "/look/folders/press");
        views.put("protect", "/protect");
        views.put("lighten", "/lighten");
        views.put("leaving", "/lighten/leaving/press");
        views.put("snapshots", "/protect/volumes/office?chosen=13&chosen=12");
        measured();
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            views.forEach((name, path) -> {
                browser.page.navigate(path);
                shoot(browser.page, folder.resolve(name + ".png"));
            });
            refused(browser.page, folder);
            drafted(browser.page, folder);
            browser.page.navigate("/look");
            browser.page.evaluate("() => document.documentElement.dataset.theme = 'dark'");
            shoot(browser.page, folder.resolve("look-dark.png"));
        }
    }

    /** A folder of this host, whose duplicates were counted. */
    private static void measured() throws InterruptedException {
        App.post("odile", "/api/v1/catalogues", "{\"name\":\"handbooks\",\"folder\":\"/usr/share/doc\"}");
        String one = "/api/v1/catalogues/handbooks";
        while (App.get("odile", one).text().contains("READING")) {
            Thread.sleep(200);
        }
        App.post("odile", one + "/savings", "{\"method\":\"CONTENT_DEFINED\",\"averageBytes\":16384}");
        while (App.get("odile", one + "/savings").text().contains("running")) {
            Thread.sleep(200);
        }
    }

    private static void refused(Page page, Path folder) {
        page.navigate("/desk?person=suki&share=homes&path=/suki");
        page.fill("[name=name]", "cut.mov");
        page.fill("[name=size]", "2 GiB");
        page.keyboard().press("Enter");
        page.locator("[role=status]").waitFor();
        shoot(page, folder.resolve("refused.png"));
    }

    private static void drafted(Page page, Path folder) {
        page.navigate(POOL);
        page.fill("[name=name]", "birch");
        page.locator("input[value=TERRACED_2]").check();
        page.waitForTimeout(700);
        shoot(page, folder.resolve("compose-pool.png"));
        page.locator("#consequence button.first").click();
        page.locator("#carry-out").click();
        page.waitForURL("**/orders/*");
        shoot(page, folder.resolve("order.png"));
    }

    private static void shoot(Page page, Path file) {
        page.locator(".plank:not([data-fresh])")
                .waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.DETACHED));
        page.waitForTimeout(400);
        page.screenshot(new Page.ScreenshotOptions().setPath(file));
    }
}
