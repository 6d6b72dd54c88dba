package org.vastshelf.app.folder;

import java.util.List;
import org.vastshelf.app.catalogue.CatalogueStore.FileEntry;
import org.vastshelf.app.catalogue.CatalogueStore.FolderRow;
import org.vastshelf.app.catalogue.SurveyStore;
import org.vastshelf.app.kit.Figures;

/** What is in a catalogue, by age, size, kind and owner. */
public record FolderView(
        List<Age> ages,
        List<Part> files,
        List<Part> folders,
        List<Part> kinds,
        List<Part> owners,
        List<SurveyStore.Unreadable> unreadable) {

    /** An age; the bar in px. */
    public record Age(String title, int bar, String bytes, String files, List<String> bySize) {}

    /** A file, a folder, or a group of files. */
    public record Part(String name, String files, String bytes, String allocated) {}

    static FolderView of(
            Figures fmt,
            AgeMap ages,
            List<FileEntry> files,
            List<FolderRow> folders,
            List<SurveyStore.Group> kinds,
            List<SurveyStore.Group> owners,
            List<SurveyStore.Unreadable> unreadable) {
        return new FolderView(
                ages.rows().stream().map(r -> age(fmt, r)).toList(),
                files.stream()
                        .map(f -> new Part(f.shown(), "", fmt.size(f.file().bytes()), ""))
                        .toList(),
                folders.stream()
                        .map(f -> new Part(f.shown(), fmt.count(f.files()), fmt.size(f.bytes()), ""))
                        .toList(),
                kinds.stream().map(g -> part(fmt, g)).toList(),
                owners.stream().map(g -> part(fmt, g)).toList(),
                unreadable);
    }

    private static Age age(Figures fmt, AgeMap.Row row) {
        return new Age(
                row.age().title(),
                row.bar(),
                fmt.size(row.bytes()),
                fmt.count(row.files()),
                row.bySize().stream().map(b -> b == 0 ? "·" : fmt.size(b)).toList());
    }

    private static Part part(Figures fmt, SurveyStore.Group group) {
        return new Part(group.name(), fmt.count(group.files()), fmt.size(group.bytes()), fmt.size(group.allocated()));
    }
}
