package org.vastshelf.app.api;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.retention.Holding;
import org.vastshelf.app.retention.LegalHolds;
import org.vastshelf.app.retention.Retention;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LegalTag;
import org.vastshelf.core.estate.RetentionRule;

/** Retention rules and legal tags. Rules are set and lifted by orders. */
@RestController
class RetentionApi {

    private final Retention retention;
    private final LegalHolds holds;

    RetentionApi(Retention retention, LegalHolds holds) {
        this.retention = retention;
        this.holds = holds;
    }

    /** @param years how many years files are held, where it is more than ten */
    record Sealing(
            String rule, LocalDate lastFree, @Nullable Integer years) {}

    record Put(String share, String path, String tag, String why) {}

    /** @param tag key of the tag: share, path and tag */
    record Which(String tag) {}

    record Made(String key) {}

    @GetMapping("/api/v1/retention")
    List<RetentionRule> rules() {
        return retention.rules();
    }

    /** What a rule holds, and what becomes free when. */
    @GetMapping("/api/v1/retention/holding")
    Holding holding(@RequestParam String rule) {
        return retention.holding(retention.rule(rule));
    }

    /** Seals a rule, with the day on which the last file that is there becomes free. */
    @PostMapping("/api/v1/retention/seal")
    RetentionRule seal(@AuthenticationPrincipal Someone me, @RequestBody Sealing body) {
        retention.seal(me.getName(), body.rule, body.lastFree, Optional.ofNullable(body.years));
        return retention.rule(body.rule);
    }

    @GetMapping("/api/v1/legal-holds")
    List<LegalTag> tags() {
        return holds.all();
    }

    /** Puts a tag on a file or a folder. */
    @PostMapping("/api/v1/legal-holds")
    Made put(@AuthenticationPrincipal Someone me, @RequestBody Put body) {
        return new Made(holds.put(me.getName(), body.share, new FilePath(body.path), body.tag, body.why)
                .key());
    }

    /** Asks to take a tag off; it stays on until somebody else does. */
    @PostMapping("/api/v1/legal-holds/ask")
    List<LegalTag> ask(@AuthenticationPrincipal Someone me, @RequestBody Which body) {
        holds.ask(me, body.tag);
        return holds.all();
    }

    @PostMapping("/api/v1/legal-holds/keep")
    List<LegalTag> keep(@AuthenticationPrincipal Someone me, @RequestBody Which body) {
        holds.keep(me, body.tag);
        return holds.all();
    }

    /** Takes a tag off for which somebody else asked. */
    @PostMapping("/api/v1/legal-holds/take-off")
    List<LegalTag> takeOff(@AuthenticationPrincipal Someone me, @RequestBody Which body) {
        holds.takeOff(me, body.tag);
        return holds.all();
    }
}
