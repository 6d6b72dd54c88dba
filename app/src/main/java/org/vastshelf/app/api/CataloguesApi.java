package org.vastshelf.app.api;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.demo.TimeJump;
import org.vastshelf.app.folder.CatalogueCsv;
import org.vastshelf.app.folder.FolderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.trace.Deeds;

/** Catalogues, bringing folders in, and the demo's clock. */
@RestController
class CataloguesApi {

    private static final int LONGEST_JUMP_HOURS = 24 * 366;

    private final CatalogueStore catalogues;
    private final FolderService folders;
    private final CatalogueCsv csv;
    private final ShelfClock clock;
    private final TimeJump time;
    private final Deeds deeds;

    CataloguesApi(
            CatalogueStore catalogues,
            FolderService folders,
            CatalogueCsv csv,
            ShelfClock clock,
            TimeJump time,
            Deeds deeds) {
        this.catalogues = catalogues;
        this.folders = folders;
        this.csv = csv;
        this.clock = clock;
        this.time = time;
        this.deeds = deeds;
    }

    record BringIn(@Nullable String name, @Nullable String folder) {}

    record Jump(@Nullable Integer hours) {}

    record Now(String now) {}

    @GetMapping("/api/v1/catalogues")
    List<Catalogue> list() {
        return catalogues.all();
    }

    @GetMapping("/api/v1/catalogues/{name}")
    Catalogue one(@PathVariable String name) {
        return folders.find(name);
    }

    @PostMapping("/api/v1/catalogues")
    @ResponseStatus(HttpStatus.ACCEPTED)
    Catalogue bringIn(@AuthenticationPrincipal Someone me, @RequestBody BringIn request) {
        String name = request.name == null ? "" : request.name;
        String folder = request.folder == null ? "" : request.folder;
        Catalogue begun = folders.bringIn(name, folder);
        deeds.done(me.getName(), Deeds.Kind.IMPORT, "/catalogues/" + name, "brought in from " + folder);
        return begun;
    }

    @PostMapping("/api/v1/catalogues/{name}/stop")
    void stop(@PathVariable String name) {
        folders.stop(name);
    }

    @PostMapping("/api/v1/catalogues/{name}/go-on")
    void goOn(@PathVariable String name) {
        folders.goOn(name);
    }

    @PostMapping("/api/v1/catalogues/{name}/remove")
    void remove(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        folders.remove(name);
        deeds.done(me.getName(), Deeds.Kind.IMPORT, "/catalogues/" + name, "removed");
    }

    /** All files of a catalogue, streamed. */
    @GetMapping(path = "/api/v1/catalogues/{name}/files.csv", produces = "text/csv")
    void export(@PathVariable String name, HttpServletResponse response) throws SQLException, IOException {
        csv.write(folders.find(name), response);
    }

    /** Makes a catalogue of the CSV in the body. */
    @PostMapping(path = "/api/v1/catalogues/{name}/files.csv", consumes = "text/csv")
    @ResponseStatus(HttpStatus.CREATED)
    Catalogue importCsv(@AuthenticationPrincipal Someone me, @PathVariable String name, InputStream body)
            throws SQLException, IOException {
        csv.read(name, new InputStreamReader(body, StandardCharsets.UTF_8));
        deeds.done(me.getName(), Deeds.Kind.IMPORT, "/catalogues/" + name, "made of a table");
        return folders.find(name);
    }

    @PostMapping("/api/v1/time")
    Now jump(@AuthenticationPrincipal Someone me, @RequestBody Jump jump) {
        if (jump.hours == null || jump.hours < 1 || jump.hours > LONGEST_JUMP_HOURS) {
            throw new IllegalArgumentException("hours is " + jump.hours + ", must be 1 to " + LONGEST_JUMP_HOURS);
        }
        time.forward(Duration.ofHours(jump.hours), me.getName());
        return new Now(clock.instant().toString());
    }
}
