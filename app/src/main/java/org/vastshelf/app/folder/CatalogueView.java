package org.vastshelf.app.folder;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.ScanState;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.unit.Counted;

/**
 * How far a catalogue has come, and what can be done with it.
 *
 * @param partial whether its figures are not complete yet
 * @param trigger what makes it be asked again; null once nothing moves
 */
public record CatalogueView(
        String name,
        Mark state,
        String said,
        boolean partial,
        @Nullable String trigger,
        List<Form> deeds) {

    private static final int A_SECOND = 1_000;

    static CatalogueView of(Figures fmt, Catalogue catalogue) {
        boolean scanning = catalogue.state() == ScanState.READING;
        return new CatalogueView(
                catalogue.name(),
                CatalogueRow.mark(catalogue),
                said(fmt, catalogue),
                catalogue.state() != ScanState.COMPLETE,
                scanning ? "sse:tick" : null,
                deeds(catalogue));
    }

    private static String said(Figures fmt, Catalogue catalogue) {
        String said = Counted.of(catalogue.files(), "file") + ", " + fmt.size(catalogue.bytes());
        if (catalogue.millis() > 0) {
            said += "; read in " + catalogue.millis() / A_SECOND + " s, "
                    + fmt.count(catalogue.files() * A_SECOND / catalogue.millis()) + " files and "
                    + fmt.size(catalogue.bytes() / catalogue.millis() * A_SECOND) + " a second";
        }
        return catalogue.unreadable() > 0
                ? said + "; " + fmt.count(catalogue.unreadable()) + " entries could not be read"
                : said;
    }

    private static List<Form> deeds(Catalogue catalogue) {
        String path = "/look/folders/" + catalogue.name();
        List<Form> deeds = new ArrayList<>();
        if (catalogue.source() == Source.FOLDER) {
            switch (catalogue.state()) {
                case READING -> deeds.add(Form.of(path + "/stop", "").button("Stop"));
                case STOPPED, FAILED -> deeds.add(Form.of(path + "/go-on", "").button("Go on"));
                case COMPLETE -> {}
            }
        }
        if (catalogue.source() != Source.SHARE) {
            deeds.add(Form.of(path + "/remove", "").button("Remove from the catalogue"));
        }
        return deeds;
    }
}
