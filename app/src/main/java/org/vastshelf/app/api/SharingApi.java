package org.vastshelf.app.api;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.content.SharingStore;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.content.Sharing;
import org.vastshelf.core.estate.FilePath;

/** How much of what shares hold is the same. */
@RestController
class SharingApi {

    private final EstateStore estates;
    private final SharingStore sharing;

    SharingApi(EstateStore estates, SharingStore sharing) {
        this.estates = estates;
        this.sharing = sharing;
    }

    /** @param unique bytes that are left when each range that several files hold is counted once */
    record Answer(String share, String path, long files, long bytes, long unique, long shared) {}

    /** Counted exactly from what copies and edits left the same, for all files below a folder. */
    @GetMapping("/api/v1/shares/{share}/sharing")
    Answer sharing(@PathVariable String share, @RequestParam(defaultValue = "/") String path) {
        if (!estates.load().shares().containsKey(share)) {
            throw new NotFound("share", share);
        }
        FilePath folder = new FilePath(path);
        Sharing found = sharing.below(share, folder);
        return new Answer(share, folder.text(), found.files(), found.bytes(), found.unique(), found.shared());
    }
}
