package org.vastshelf.e2e;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Debian's headless browser, with a page that remembers the errors of its console. */
final class Browser implements AutoCloseable {

    private static final List<String> FLAGS = List.of(
            "--no-sandbox",
            "--disable-gpu",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync");

    final List<String> errors = new ArrayList<>();
    final Page page;
    private final Playwright playwright;

    Browser(int width, int height) {
        this(width, height, true);
    }

    /** One that may not run scripts, say. */
    Browser(int width, int height, boolean scripts) {
        playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        BrowserContext context = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(FLAGS))
                .newContext(new com.microsoft.playwright.Browser.NewContextOptions()
                        .setViewportSize(width, height)
                        .setBaseURL(App.URL)
                        .setJavaScriptEnabled(scripts)
                        .setBypassCSP(false));
        page = context.newPage();
        page.onConsoleMessage(message -> {
            if (message.type().equals("error")) {
                errors.add(page.url() + ": " + message.text());
            }
        });
        page.onPageError(error -> errors.add(page.url() + ": " + error));
    }

    Browser signIn(String who) {
        page.navigate("/sign-in");
        page.fill("[name=username]", who);
        page.fill("[name=password]", App.PASSWORD);
        page.keyboard().press("Enter");
        page.waitForURL(url -> !url.contains("sign-in"));
        page.waitForLoadState();
        return this;
    }

    @Override
    public void close() {
        playwright.close();
    }
}
