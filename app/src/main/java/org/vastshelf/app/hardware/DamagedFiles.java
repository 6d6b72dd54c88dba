package org.vastshelf.app.hardware;

import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.core.estate.Estate;

/**
 * Files under damaged blocks. Simulated file servers do not lay blocks out; the same pool always names the same files,
 * drawn from the catalogues of its shares.
 */
@Component
class DamagedFiles {

    private final CatalogueStore catalogues;

    DamagedFiles(CatalogueStore catalogues) {
        this.catalogues = catalogues;
    }

    List<String> under(Estate estate, String pool, int count) {
        return estate.volumesOn(pool)
                .flatMap(v -> estate.sharesOn(v.name()))
                .flatMap(share -> catalogues.find(share.name()).stream()
                        .flatMap(c -> catalogues.drawn(c.no(), pool, count).stream())
                        .map(path -> share.name() + path))
                .limit(count)
                .toList();
    }
}
