package org.vastshelf.app.api;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.content.KeptCheck;

/** Looks at the bytes that people saved: what no file refers to is found and removed. */
@RestController
class KeptApi {

    private static final int SHOWN = 100;

    private final KeptCheck check;

    KeptApi(KeptCheck check) {
        this.check = check;
    }

    /** What the latest looks found, newest first. */
    @GetMapping("/api/v1/kept-bytes/looks")
    List<KeptCheck.Report> looks() {
        return check.reports(SHOWN);
    }

    /** Looks now. */
    @PostMapping("/api/v1/kept-bytes/looks")
    KeptCheck.Report look() {
        return check.look();
    }
}
