package org.vastshelf.app.catalogue;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.TALLY;

import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.core.catalogue.SizeClass;
import org.vastshelf.core.estate.FilePath;

/** Keeps a catalogue and its roll-ups in step with single writes and deletions; part of the caller's transaction. */
@Component
public class FileWrites {

    private final DSLContext db;
    private final CatalogueStore catalogues;

    FileWrites(DSLContext db, CatalogueStore catalogues) {
        this.db = db;
        this.catalogues = catalogues;
    }

    /** Puts a file in place of the one before; folders on the way are made. */
    public void put(int catalogue, FilePath path, FileRow file) {
        int folder = ensureFolder(catalogue, path.parent());
        Optional<FileRow> before = catalogues.file(catalogue, folder, file.name());
        before.ifPresent(old -> take(catalogue, folder, path.parent(), old));
        db.insertInto(FILE)
                .values(
                        catalogue,
                        folder,
                        file.name(),
                        file.bytes(),
                        file.allocated(),
                        file.owner(),
                        file.group(),
                        file.modified(),
                        file.accessed(),
                        file.changed(),
                        file.kind().ordinal(),
                        1,
                        "")
                .execute();
        add(catalogue, folder, path.parent(), file, 1);
    }

    /** Removes a file; empty when it is not there. */
    public Optional<FileRow> delete(int catalogue, FilePath path) {
        return catalogues.folder(catalogue, PathBytes.of(path.parent().text())).flatMap(folder -> {
            Optional<FileRow> file = catalogues.file(catalogue, folder.no(), PathBytes.of(path.name()));
            file.ifPresent(old -> take(catalogue, folder.no(), path.parent(), old));
            return file;
        });
    }

    private void take(int catalogue, int folder, FilePath path, FileRow old) {
        db.deleteFrom(FILE)
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.eq(folder), FILE.NAME.eq(old.name()))
                .execute();
        add(catalogue, folder, path, old, -1);
    }

    private void add(int catalogue, int folder, FilePath path, FileRow file, int sign) {
        db.insertInto(TALLY)
                .values(
                        catalogue,
                        folder,
                        file.month(),
                        SizeClass.of(file.bytes()).ordinal(),
                        file.kind().ordinal(),
                        file.owner(),
                        (long) sign,
                        sign * file.bytes(),
                        sign * file.allocated())
                .onDuplicateKeyUpdate()
                .set(TALLY.FILES, TALLY.FILES.plus(sign))
                .set(TALLY.BYTES, TALLY.BYTES.plus(sign * file.bytes()))
                .set(TALLY.ALLOCATED, TALLY.ALLOCATED.plus(sign * file.allocated()))
                .execute();
        for (FilePath up = path; ; up = up.parent()) {
            byte[] bytes = PathBytes.of(up.text());
            db.update(FOLDER)
                    .set(FOLDER.SUM_FILES, FOLDER.SUM_FILES.plus(sign))
                    .set(FOLDER.SUM_BYTES, FOLDER.SUM_BYTES.plus(sign * file.bytes()))
                    .set(FOLDER.SUM_ALLOCATED, FOLDER.SUM_ALLOCATED.plus(sign * file.allocated()))
                    .where(
                            FOLDER.CATALOGUE_NO.eq(catalogue),
                            FOLDER.PATH_HASH.eq(PathBytes.hash(bytes)),
                            FOLDER.PATH.eq(bytes))
                    .execute();
            if (up.isRoot()) {
                break;
            }
        }
        db.update(CATALOGUE)
                .set(CATALOGUE.FILES, CATALOGUE.FILES.plus(sign))
                .set(CATALOGUE.BYTES, CATALOGUE.BYTES.plus(sign * file.bytes()))
                .where(CATALOGUE.NO.eq(catalogue))
                .execute();
    }

    private int ensureFolder(int catalogue, FilePath path) {
        byte[] bytes = PathBytes.of(path.text());
        Optional<CatalogueStore.FolderRow> found = catalogues.folder(catalogue, bytes);
        if (found.isPresent()) {
            return found.get().no();
        }
        int parent = path.isRoot() ? 0 : ensureFolder(catalogue, path.parent());
        int no = db.select(CATALOGUE.NEXT_FOLDER)
                .from(CATALOGUE)
                .where(CATALOGUE.NO.eq(catalogue))
                .forUpdate()
                .fetchSingle(CATALOGUE.NEXT_FOLDER);
        db.update(CATALOGUE)
                .set(CATALOGUE.NEXT_FOLDER, no + 1)
                .where(CATALOGUE.NO.eq(catalogue))
                .execute();
        db.insertInto(FOLDER)
                .values(catalogue, no, parent, path.parts().size(), PathBytes.hash(bytes), bytes, 0L, 0L, 0L)
                .execute();
        return no;
    }

    /** All that is counted below these folders, in logical bytes, in the order given. */
    public List<Long> held(int catalogue, List<FilePath> folders) {
        return folders.stream()
                .map(folder -> catalogues
                        .folder(catalogue, PathBytes.of(folder.text()))
                        .map(CatalogueStore.FolderRow::bytes)
                        .orElse(0L))
                .toList();
    }
}
