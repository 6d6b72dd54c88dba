package org.vastshelf.app.api;

import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.saving.Found;
import org.vastshelf.app.saving.Packing;
import org.vastshelf.app.saving.SavingRun;
import org.vastshelf.app.saving.SavingRun.Method;
import org.vastshelf.app.saving.SavingRun.Wanted;
import org.vastshelf.app.saving.SavingService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.saving.Breakdown.By;

/** What keeping equal chunks once would spare, measured on the files of a catalogue. */
@RestController
class SavingsApi {

    private final SavingService savings;

    SavingsApi(SavingService savings) {
        this.savings = savings;
    }

    /**
     * @param method {@code FIXED}, with {@code blockBytes}, or {@code CONTENT_DEFINED}, with {@code averageBytes}
     * @param packing {@code LZ4} or {@code ZSTANDARD}: how the chunks that differ are packed; none when it is left out
     * @param sample share of the chunks that is compared: more than 0, and at most 1, which compares all; the next power of
     *     two above it is taken
     * @param mibps MiB a second at most; none for as fast as it goes
     * @param seconds after so many it stops by itself, and can go on; none for never
     */
    record Ask(
            @Nullable Method method,
            @Nullable Integer blockBytes,
            @Nullable Integer averageBytes,
            @Nullable Packing packing,
            @Nullable Double sample,
            @Nullable Integer mibps,
            @Nullable Integer seconds) {

        private static final double LEAST_SAMPLE = 1.0 / (1 << Wanted.DEEPEST);

        Wanted wanted() {
            if (method == null) {
                throw new IllegalArgumentException("method is missing, must be FIXED or CONTENT_DEFINED");
            }
            boolean fixed = method == Method.FIXED;
            Integer chunk = fixed ? blockBytes : averageBytes;
            Integer other = fixed ? averageBytes : blockBytes;
            if (other != null) {
                throw new IllegalArgumentException(
                        (fixed ? "averageBytes" : "blockBytes") + " is " + other + ", means nothing with " + method);
            }
            if (chunk == null) {
                throw new IllegalArgumentException((fixed ? "blockBytes" : "averageBytes") + " is missing");
            }
            return new Wanted(
                    method,
                    chunk,
                    packing == null ? Packing.NONE : packing,
                    depth(),
                    mibps == null ? 0 : mibps,
                    seconds == null ? 0 : seconds);
        }

        private int depth() {
            double share = sample == null ? 1 : sample;
            if (!(share >= LEAST_SAMPLE && share <= 1)) {
                throw new IllegalArgumentException("sample is " + share + ", must be " + LEAST_SAMPLE + " to 1");
            }
            return (int) Math.floor(-Math.log(share) / Math.log(2) + 1e-9);
        }
    }

    record Begun(long id) {}

    /**
     * @param state {@code running}, {@code done}, {@code stopped} or {@code failed}
     * @param sample share of the chunks that is compared
     * @param unreadable files that could not be read, or are no more
     */
    record Told(
            long id,
            String state,
            String problem,
            Method method,
            int chunkBytes,
            double sample,
            long files,
            long unreadable,
            long bytes,
            long uniqueBytes,
            long savedBytes,
            long standardErrorBytes,
            Packing packing,
            long packedBytes,
            long packedErrorBytes) {

        static Told of(SavingRun run) {
            return new Told(
                    run.id(),
                    run.state().name().toLowerCase(Locale.ROOT),
                    run.problem(),
                    run.wanted().method(),
                    run.wanted().chunkBytes(),
                    run.wanted().sample(),
                    run.savings().files(),
                    run.unreadable(),
                    run.savings().bytes(),
                    run.savings().uniqueBytes(),
                    run.savings().savedBytes(),
                    run.savings().standardErrorBytes(),
                    run.wanted().packing(),
                    run.savings().packedBytes(),
                    run.savings().packedErrorBytes());
        }
    }

    /** Begins a measurement. */
    @PostMapping("/api/v1/catalogues/{name}/savings")
    @ResponseStatus(HttpStatus.ACCEPTED)
    Begun begin(@AuthenticationPrincipal Someone me, @PathVariable String name, @RequestBody Ask ask) {
        return new Begun(savings.begin(name, ask.wanted(), me.getName()));
    }

    /** The last measurements of a catalogue, newest first. */
    @GetMapping("/api/v1/catalogues/{name}/savings")
    List<Told> list(@PathVariable String name) {
        return savings.of(name).stream().map(Told::of).toList();
    }

    @GetMapping("/api/v1/catalogues/{name}/savings/{id}")
    Told one(@PathVariable String name, @PathVariable long id) {
        return Told.of(savings.find(name, id));
    }

    @PostMapping("/api/v1/catalogues/{name}/savings/{id}/stop")
    Told stop(@AuthenticationPrincipal Someone me, @PathVariable String name, @PathVariable long id) {
        savings.stop(name, id, me.getName());
        return Told.of(savings.find(name, id));
    }

    @PostMapping("/api/v1/catalogues/{name}/savings/{id}/go-on")
    Told goOn(@AuthenticationPrincipal Someone me, @PathVariable String name, @PathVariable long id) {
        savings.goOn(name, id, me.getName());
        return Told.of(savings.find(name, id));
    }

    /**
     * Files of one group.
     *
     * @param name of a kind or an age, or the path of an outermost folder; empty for all other folders
     * @param repeatedBytes of chunks that were read before, in these files or others
     * @param packedBytes that packing the others spares
     */
    record GroupTold(String name, long files, long bytes, long repeatedBytes, long packedBytes) {

        static List<GroupTold> of(Found found, By by) {
            return found.groups().get(by).stream()
                    .map(group ->
                            new GroupTold(group.name(), group.files(), group.bytes(), group.repeated(), group.packed()))
                    .toList();
        }
    }

    /** Where a measurement that has ended found what it found. */
    record FoundTold(List<GroupTold> kinds, List<GroupTold> folders, List<GroupTold> ages, List<Found.Alike> alike) {}

    @GetMapping("/api/v1/catalogues/{name}/savings/{id}/found")
    FoundTold found(@PathVariable String name, @PathVariable long id) {
        Found found = savings.found(savings.find(name, id));
        return new FoundTold(
                GroupTold.of(found, By.KIND),
                GroupTold.of(found, By.FOLDER),
                GroupTold.of(found, By.AGE),
                found.alike());
    }
}
