package org.vastshelf.app.api;

import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.saving.CommonRuns;
import org.vastshelf.app.security.Someone;

/** What volumes save by keeping equal units once and packing them. */
@RestController
class VolumeSavingApi {

    private final CommonRuns runs;

    VolumeSavingApi(CommonRuns runs) {
        this.runs = runs;
    }

    /** The rule of a volume, what it saves, and the latest runs. */
    @GetMapping("/api/v1/volumes/{name}/saving")
    CommonRuns.Saving saving(@PathVariable String name) {
        return runs.of(name);
    }

    /** Lets the rule of a volume do now what it would do at its time. */
    @PostMapping("/api/v1/volumes/{name}/saving/begin")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void begin(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        runs.begin(me.getName(), name);
    }

    /** Stops what is under way; what was done stays. */
    @PostMapping("/api/v1/volumes/{name}/saving/stop")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stop(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        runs.stop(me.getName(), name);
    }
}
