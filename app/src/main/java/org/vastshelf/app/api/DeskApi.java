package org.vastshelf.app.api;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.desk.DeskListing;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Outcome;
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

    private final FileRoad road;
    private final DeskListing listings;
    private final EstateStore estates;

    DeskApi(FileRoad road, DeskListing listings, EstateStore estates) {
        this.road = road;
        this.listings = listings;
        this.estates = estates;
    }

    record Request(
            @Nullable String person,
            @Nullable String share,
            @Nullable String operation,
            @Nullable String path,
            @Nullable Long bytes) {}

    /** @param receipt by which the audit line is found */
    record Answer(boolean allowed, String reason, Verdict verdict, ClientSpace clientSpace, long receipt) {}

    /** Of somebody else's own folder nothing but the name is told. */
    record Entry(String name, boolean folder, long bytes, long files, boolean closed) {}

    record Listing(boolean mayRead, Optional<ClientSpace> clientSpace, List<Entry> entries) {}

    /** What a person sees in a folder of a share. */
    @GetMapping("/api/v1/desk/listing")
    Listing listing(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String person,
            @RequestParam(defaultValue = "") String share,
            @RequestParam(defaultValue = "/") String path) {
        requireMay(me, required("person", person));
        FilePath folder = new FilePath(path);
        DeskListing.Listing found = listings.of(share(required("share", share)), person, folder);
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
        return new Listing(found.mayRead(), found.space(), entries);
    }

    private Share share(String name) {
        return Optional.ofNullable(estates.load().shares().get(name))
                .orElseThrow(() -> new IllegalArgumentException("There is no share '" + name + "'"));
    }

    private static void requireMay(Someone me, String person) {
        if (!me.actsAs(person)) {
            throw new AccessDeniedException("only administrators and operators act as somebody else");
        }
    }

    @PostMapping("/api/v1/desk/operations")
    Answer operate(@AuthenticationPrincipal Someone me, @RequestBody Request request) {
        String person = required("person", request.person);
        requireMay(me, person);
        long bytes = request.bytes == null ? 0 : request.bytes;
        if (bytes < 0) {
            throw new IllegalArgumentException("bytes is " + bytes + ", must be at least 0");
        }
        String shareName = required("share", request.share);
        Share share = share(shareName);
        Outcome result = road.perform(new FileOperation(
                kind(required("operation", request.operation)),
                person,
                shareName,
                new FilePath(required("path", request.path)),
                Bytes.of(bytes),
                Workstations.of(share, person)));
        Verdict verdict = result.verdict(UnitSystem.BINARY);
        return new Answer(verdict.allowed(), verdict.reason(), verdict, result.space(), result.receipt());
    }

    private static Kind kind(String text) {
        return Arrays.stream(Kind.values())
                .filter(k -> k.name().equals(text))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(
                        "operation is '" + text + "', must be one of " + Arrays.toString(Kind.values())));
    }

    private static String required(String name, @Nullable String value) {
        if (value == null || value.isBlank()) {
            throw new IllegalArgumentException(name + " is missing");
        }
        return value;
    }
}
