package org.vastshelf.app.api;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.content.Downloads;
import org.vastshelf.app.content.Spool;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.unit.Bytes;

/** Bytes of files: read from any place on, saved whole, added to, changed in place; through the gate as ever. */
@RestController
class ContentsApi {

    private static final String CONTENTS = "/api/v1/desk/contents";

    private final FileRoad road;
    private final EstateStore estates;
    private final Downloads downloads;

    ContentsApi(FileRoad road, EstateStore estates, Downloads downloads) {
        this.road = road;
        this.estates = estates;
        this.downloads = downloads;
    }

    /** The file that a request is about. */
    record Where(
            @Nullable String person,
            @Nullable String share,
            @Nullable String path) {}

    /** The whole file, or the ranges that a Range header asks for; the verdict with 403 where the gate refuses. */
    @GetMapping(CONTENTS)
    ResponseEntity<?> read(
            @AuthenticationPrincipal Someone me,
            Where where,
            @RequestHeader(name = HttpHeaders.IF_RANGE, defaultValue = "") String onlyIf) {
        FileOperation operation = operation(me, where, Kind.READ);
        Outcome result = road.perform(operation);
        return result.contents().isPresent()
                ? downloads.of(operation.path().name(), result.contents().get(), onlyIf)
                : ResponseEntity.status(HttpStatus.FORBIDDEN).body(DeskApi.Answer.of(result));
    }

    /** Saves the body as the whole file. */
    @PutMapping(CONTENTS)
    DeskApi.Answer save(@AuthenticationPrincipal Someone me, Where where, HttpServletRequest request)
            throws IOException {
        FileOperation operation = operation(me, where, Kind.WRITE);
        try (Spool body = Spool.of(request.getInputStream())) {
            return DeskApi.Answer.of(road.save(operation, body));
        }
    }

    /** Writes the body into the file, from an offset on; at its end when there is none. */
    @PatchMapping(CONTENTS)
    DeskApi.Answer edit(
            @AuthenticationPrincipal Someone me,
            Where where,
            @RequestParam(required = false) @Nullable Long offset,
            HttpServletRequest request)
            throws IOException {
        FileOperation operation = operation(me, where, Kind.EDIT);
        if (offset != null && (offset < 0 || offset > FileOperation.LARGEST_FILE.value())) {
            throw new IllegalArgumentException(
                    "offset is " + offset + ", must be from 0 to " + FileOperation.LARGEST_FILE.value());
        }
        try (Spool body = Spool.of(request.getInputStream())) {
            return DeskApi.Answer.of(
                    offset == null ? road.append(operation, body) : road.edit(operation, offset, body));
        }
    }

    private FileOperation operation(Someone me, Where where, Kind kind) {
        String person = DeskApi.required("person", where.person);
        DeskApi.requireMay(me, person);
        String share = DeskApi.required("share", where.share);
        return new FileOperation(
                kind,
                person,
                share,
                new FilePath(DeskApi.required("path", where.path)),
                Bytes.ZERO,
                Workstations.of(DeskApi.share(estates, share), person));
    }
}
