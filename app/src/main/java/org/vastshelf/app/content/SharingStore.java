package org.vastshelf.app.content;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.nio.charset.StandardCharsets;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.core.content.Sharing;
import org.vastshelf.core.estate.FilePath;

/** Counts how much of what lies in a folder is the same, by the ranges of which its files are made. */
@Component
public class SharingStore {

    private static final int AT_ONCE = 1_000;

    private final DSLContext db;

    SharingStore(DSLContext db) {
        this.db = db;
    }

    /** All files of a folder and those below it. */
    public Sharing below(String share, FilePath folder) {
        byte[] path = folder.text().getBytes(StandardCharsets.UTF_8);
        byte[] inside = (folder.isRoot() ? "/" : folder.text() + "/").getBytes(StandardCharsets.UTF_8);
        Sharing.Count count = new Sharing.Count();
        try (var rows = db.select(FILE.EXTENTS)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO))
                .join(FILE)
                .on(FILE.CATALOGUE_NO.eq(CATALOGUE.NO), FILE.FOLDER_NO.eq(FOLDER.NO))
                .where(CATALOGUE.NAME.eq(share))
                .and(FOLDER.PATH
                        .eq(path)
                        .or(DSL.condition(
                                "LEFT({0}, {1}) = {2}", FOLDER.PATH, DSL.val(inside.length), DSL.val(inside))))
                .fetchSize(AT_ONCE)
                .fetchLazy()) {
            rows.forEach(row -> count.add(ContentsCode.read(row.value1())));
        }
        return count.count();
    }
}
