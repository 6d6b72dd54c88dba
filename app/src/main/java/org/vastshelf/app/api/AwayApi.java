package org.vastshelf.app.api;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.away.Reads;
import org.vastshelf.app.away.Returning;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.tier.TierRun;
import org.vastshelf.app.tier.TierRuns;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.unit.UnitSystem;

/** Runs of tiering rules, and what has left by them. */
@RestController
class AwayApi {

    private final TierRuns runs;
    private final Returning returning;
    private final Reads reads;

    AwayApi(TierRuns runs, Returning returning, Reads reads) {
        this.reads = reads;
        this.runs = runs;
        this.returning = returning;
    }

    record Begun(long id) {}

    record Place(String share, String path) {}

    /**
     * @param to where the file is to be; left out, where it was
     * @param replace whether a file that is there gives way
     */
    record Back(@Nullable String to, @Nullable Boolean replace) {}

    record Answer(boolean allowed, String reason) {
        static Answer of(Outcome outcome) {
            return new Answer(
                    outcome.allowed(),
                    outcome.allowed() ? "" : outcome.verdict(UnitSystem.BINARY).reason());
        }
    }

    /** Begins a run of a rule now, whatever its schedule says. */
    @PostMapping("/api/v1/tiering/rules/{name}/runs")
    @ResponseStatus(HttpStatus.ACCEPTED)
    Begun run(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        return new Begun(runs.run(name, me.getName()));
    }

    /** The latest runs of a rule. */
    @GetMapping("/api/v1/tiering/rules/{name}/runs")
    List<TierRun> runs(@PathVariable String name) {
        return runs.of(name);
    }

    @GetMapping("/api/v1/tiering/rules/{name}/runs/{id}")
    TierRun run(@PathVariable String name, @PathVariable long id) {
        return runs.find(name, id);
    }

    /** Stops a run; what has left stays where it is. */
    @PostMapping("/api/v1/tiering/rules/{name}/runs/{id}/stop")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stop(@AuthenticationPrincipal Someone me, @PathVariable String name, @PathVariable long id) {
        runs.stop(name, id, me.getName());
    }

    /**
     * What has left, the newest first.
     *
     * @param text part of the path
     * @param unused only that to which no file refers
     */
    @GetMapping("/api/v1/tiering/objects")
    Cursors.Page<Returning.Left> objects(
            @RequestParam(defaultValue = "") String share,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(defaultValue = "false") boolean unused,
            @RequestParam(defaultValue = "9223372036854775807") long after,
            @RequestParam(defaultValue = "100") int limit) {
        return Cursors.page(
                returning.list(share, text, unused, after, Cursors.requireLimit(limit) + 1),
                limit,
                left -> String.valueOf(left.number()));
    }

    @GetMapping("/api/v1/tiering/objects/{number}")
    Returning.Left object(@PathVariable long number) {
        return returning.find(number);
    }

    /** Puts a file back that reads what an object holds. */
    @PostMapping("/api/v1/tiering/objects/{number}/bring-back")
    Answer bringBack(@AuthenticationPrincipal Someone me, @PathVariable long number, @RequestBody Back back) {
        return Answer.of(returning.bringBack(
                number,
                Optional.ofNullable(back.to).map(FilePath::new),
                Boolean.TRUE.equals(back.replace),
                me.getName()));
    }

    /** Whose reads of files that have left are held back. */
    @GetMapping("/api/v1/tiering/rushes")
    List<Reads.Held> rushes() {
        return reads.held();
    }

    record Who(String person, String address) {}

    /** Lets somebody read on for half a day. */
    @PostMapping("/api/v1/tiering/rushes")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void letGo(@AuthenticationPrincipal Someone me, @RequestBody Who who) {
        reads.letGo(who.person, who.address, me.getName());
    }

    /** Brings a file back whole from where it lies. */
    @PostMapping("/api/v1/tiering/recalls")
    Answer recall(@AuthenticationPrincipal Someone me, @RequestBody Place place) {
        return Answer.of(returning.recall(place.share, new FilePath(place.path), me.getName()));
    }
}
