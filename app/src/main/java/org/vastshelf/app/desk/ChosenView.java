package org.vastshelf.app.desk;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.unit.Counted;

/**
 * A file or a folder that is looked at closely.
 *
 * @param facts what is known of it, in the order in which it is told
 * @param edit the form that writes into it; null for a folder
 * @param remove the form that removes it
 * @param download whether its bytes can be had
 */
public record ChosenView(
        String name,
        List<Fact> facts,
        boolean download,
        Form move,
        Form copy,
        @Nullable Form edit,
        Form remove) {

    private static final String KEPT =
            "Bytes that somebody saved are kept once, however many files hold them; the others the stand-in file server"
                    + " makes anew whenever they are read, the same each time.";

    private static final String UNKNOWN = "application/octet-stream";

    /** Something known of it. */
    public record Fact(String what, Figure figure) {}

    /** The forms for what can be done to anything. */
    record Forms(Form move, Form copy, Form edit, Form remove, Form delete) {

        static Forms of(Typed typed, Seat seat, FilePath folder, List<String> shares) {
            Typed.Fields move = typed.at("/desk/move");
            Typed.Fields copy = typed.at("/desk/copy");
            Typed.Fields edit = typed.at("/desk/edit");
            String here = folder.child(seat.chosen()).text();
            return new Forms(
                    Form.of(
                                    move.action(),
                                    "Rename or move",
                                    move.text("to", "New path on " + seat.share(), here)
                                            .width("w-80"))
                            .button("Move it"),
                    Form.of(
                                    copy.action(),
                                    "Copy",
                                    copy.select("onto", "Onto share", shares, seat.share())
                                            .width("w-40"),
                                    copy.text("to", "Path of the copy", here).width("w-80"))
                            .button("Copy it"),
                    Form.of(
                                    edit.action(),
                                    "Write into it",
                                    edit.text("at", "From byte", "")
                                            .width("w-32")
                                            .hint("empty for the end"),
                                    edit.text("text", "Text", "").width("w-64"))
                            .button("Write"),
                    Form.of("/desk/remove", "").button("Remove the folder and all in it"),
                    Form.of("/desk/delete", "").button("Delete it"));
        }
    }

    static ChosenView of(Figures fmt, CatalogueStore.FolderRow folder, Forms forms) {
        return new ChosenView(
                folder.name() + "/",
                List.of(
                        new Fact("files below", Figure.of(fmt.count(folder.files()))),
                        new Fact("bytes", Figure.of(fmt.size(folder.bytes())))),
                false,
                forms.move,
                forms.copy,
                null,
                forms.remove);
    }

    static ChosenView of(Figures fmt, FileRow file, Contents contents, String type, Forms forms) {
        return new ChosenView(
                PathBytes.shown(file.name()),
                List.of(
                        new Fact("bytes", Figure.of(fmt.count(file.bytes()) + " (" + fmt.size(file.bytes()) + ")")),
                        new Fact("on disk", Figure.of(onDisk(fmt, file))),
                        new Fact("owner", Figure.of(file.owner())),
                        new Fact("changed", Figure.of(fmt.moment(Instant.ofEpochSecond(file.modified())))),
                        new Fact("last used", Figure.of(fmt.moment(Instant.ofEpochSecond(file.lastUse())))),
                        new Fact("name says", Figure.of(file.kind().title())),
                        new Fact(
                                "bytes say",
                                Figure.of(type.equals(UNKNOWN) ? "nothing that is recognised" : type)
                                        .why("Recognised by its first bytes, whatever its name says.")),
                        new Fact("made of", Figure.of(pieces(fmt, contents)).why(KEPT))),
                true,
                forms.move,
                forms.copy,
                forms.edit,
                forms.delete);
    }

    private static String onDisk(Figures fmt, FileRow file) {
        return fmt.size(file.allocated())
                + (file.isAway() ? ": what it holds lies in a cold store, and comes when somebody reads it" : "");
    }

    private static String pieces(Figures fmt, Contents contents) {
        long saved = contents.extents().stream()
                .filter(e -> e.stream().isKept())
                .mapToLong(Extent::length)
                .sum();
        return Counted.of(contents.extents().size(), "piece")
                + (saved == 0 ? "" : ", " + fmt.size(saved) + " saved by somebody");
    }

    public boolean isEdited() {
        return edit != null;
    }
}
