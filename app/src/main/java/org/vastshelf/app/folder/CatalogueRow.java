package org.vastshelf.app.folder;

import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.unit.Bytes;

/** A catalogue in a list. */
public record CatalogueRow(String name, String of, Mark state, String files, Figure bytes, String unreadable) {

    static CatalogueRow of(Figures fmt, Catalogue catalogue) {
        return new CatalogueRow(
                catalogue.name(),
                switch (catalogue.source()) {
                    case SHARE -> "a share";
                    case FOLDER -> catalogue.root();
                    case TABLE -> "a CSV";
                },
                mark(catalogue),
                fmt.count(catalogue.files()),
                fmt.figure(fmt.key("share", catalogue.name(), "bytes"), Bytes.of(catalogue.bytes())),
                fmt.count(catalogue.unreadable()));
    }

    static Mark mark(Catalogue catalogue) {
        return switch (catalogue.state()) {
            case COMPLETE -> Mark.fine("complete");
            case READING -> Mark.waiting("being read");
            case STOPPED -> Mark.waiting("stopped");
            case FAILED -> Mark.watch("failed");
        };
    }
}
