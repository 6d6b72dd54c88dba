package org.vastshelf.app.api;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.desk.DeskListing;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.TreeRoad;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.ClientSpace;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.Verdict;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** File operations through the gate. */
@RestController
class DeskApi {

    private static final int MOST_LISTED = 10_000;

    private final FileRoad road;
    private final TreeRoad trees;
    private final DeskListing listings;
    private final EstateStore estates;
    private final ShelfClock clock;

    DeskApi(FileRoad road, TreeRoad trees, DeskListing listings, EstateStore estates, ShelfClock clock) {
        this.road = road;
        this.trees = trees;
        this.listings = listings;
        this.estates = estates;
        this.clock = clock;
    }

    /**
     * Something to do.
     *
     * @param bytes length of what is written or added
     * @param offset where an edit begins; missing for the end
     * @param to the new path of a move, or the path of a copy
     * @param toShare the share that a copy goes to; missing for the same
     */
    record Request(
            @Nullable String person,
            @Nullable String share,
            @Nullable String operation,
            @Nullable String path,
            @Nullable Long bytes,
            @Nullable Long offset,
            @Nullable String to,
            @Nullable String toShare) {}

    /** @param receipt by which the audit line is found */
    record Answer(boolean allowed, String reason, Verdict verdict, ClientSpace clientSpace, long receipt) {

        static Answer of(Outcome result) {
            Verdict verdict = result.verdict(UnitSystem.BINARY);
            return new Answer(verdict.allowed(), verdict.reason(), verdict, result.space(), result.receipt());
        }
    }

    /** Of somebody else's own folder nothing but the name is told. */
    record Entry(String name, boolean folder, long bytes, long files, boolean closed) {}

    /** @param next what to ask for as {@code after} to have the next part; empty after the last */
    record Listing(boolean mayRead, Optional<ClientSpace> clientSpace, List<Entry> entries, String next) {}

    /** What a person sees in a folder of a share, part by part. */
    @GetMapping("/api/v1/desk/listing")
    Listing listing(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String person,
            @RequestParam(defaultValue = "") String share,
            @RequestParam(defaultValue = "/") String path,
            @RequestParam(defaultValue = "") String after,
            @RequestParam(defaultValue = "200") int most) {
        requireMay(me, required("person", person));
        if (most < 1 || most > MOST_LISTED) {
            throw new IllegalArgumentException("most is " + most + ", must be from 1 to " + MOST_LISTED);
        }
        DeskListing.Listing found = listings.of(
                share(estates, required("share", share)),
                person,
                new FilePath(path),
                DeskListing.From.parse(after),
                most);
        List<Entry> entries = Stream.concat(
                        found.folders().stream()
                                .map(f -> new Entry(
                                        f.row().name(),
                                        true,
                                        f.closed() ? 0 : f.row().bytes(),
                                        f.closed() ? 0 : f.row().files(),
                                        f.closed())),
                        found.files().stream()
                                .map(f -> new Entry(f.name(), false, f.file().bytes(), 1, false)))
                .toList();
        return new Listing(
                found.mayRead(),
                found.space(),
                entries,
                found.next().map(DeskListing.From::text).orElse(""));
    }

    static Share share(EstateStore estates, String name) {
        return Optional.ofNullable(estates.load().shares().get(name))
                .orElseThrow(() -> new IllegalArgumentException("There is no share '" + name + "'"));
    }

    static void requireMay(Someone me, String person) {
        if (!me.actsAs(person)) {
            throw new AccessDeniedException("only administrators and operators act as somebody else");
        }
    }

    @PostMapping("/api/v1/desk/operations")
    Answer operate(@AuthenticationPrincipal Someone me, @RequestBody Request request) {
        String person = required("person", request.person);
        requireMay(me, person);
        String share = required("share", request.share);
        share(estates, share);
        TreeRoad.At at = new TreeRoad.At(share, new FilePath(required("path", request.path)));
        return Answer.of(
                switch (kind(required("operation", request.operation))) {
                    case LIST, READ, WRITE, DELETE -> road.perform(operation(request, person, at));
                    case EDIT ->
                        road.edit(
                                operation(request, person, at),
                                request.offset == null
                                        ? OptionalLong.empty()
                                        : OptionalLong.of(atLeastZero("offset", request.offset)),
                                clock.instant());
                    case MOVE, MOVE_FOLDER -> trees.move(person, at, new FilePath(required("to", request.to)));
                    case COPY, COPY_FOLDER -> trees.copy(person, at, target(request, share));
                    case MAKE_FOLDER -> trees.makeFolder(person, at);
                    case REMOVE_FOLDER -> trees.removeFolder(person, at);
                    case RESTORE, CLEAR, FALL_BACK ->
                        throw new IllegalArgumentException("operation is '" + request.operation
                                + "', which is done at the snapshot that has the file");
                    case LEAVE, RECALL ->
                        throw new IllegalArgumentException(
                                "operation is '" + request.operation + "', which a tiering rule does");
                });
    }

    private TreeRoad.At target(Request request, String share) {
        String onto = request.toShare == null ? share : request.toShare;
        share(estates, onto);
        return new TreeRoad.At(onto, new FilePath(required("to", request.to)));
    }

    private FileOperation operation(Request request, String person, TreeRoad.At at) {
        return new FileOperation(
                kind(required("operation", request.operation)),
                person,
                at.share(),
                at.path(),
                Bytes.of(atLeastZero("bytes", request.bytes == null ? 0 : request.bytes)),
                Workstations.of(share(estates, at.share()), person));
    }

    private static long atLeastZero(String name, long value) {
        if (value < 0 || value > FileOperation.LARGEST_FILE.value()) {
            throw new IllegalArgumentException(
                    name + " is " + value + ", must be from 0 to " + FileOperation.LARGEST_FILE.value());
        }
        return value;
    }

    private static Kind kind(String text) {
        return Arrays.stream(Kind.values())
                .filter(k -> k.name().equals(text))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(
                        "operation is '" + text + "', must be one of " + Arrays.toString(Kind.values())));
    }

    static String required(String name, @Nullable String value) {
        if (value == null || value.isBlank()) {
            throw new IllegalArgumentException(name + " is missing");
        }
        return value;
    }
}
