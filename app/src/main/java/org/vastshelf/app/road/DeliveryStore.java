package org.vastshelf.app.road;

import java.util.List;
import java.util.function.Consumer;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.core.content.Contents;

/** Rows of many files and their audit lines, written in a few statements. */
@Component
class DeliveryStore {

    private static final int LOAD_BYTES = 4 << 20;

    private final DSLContext db;

    DeliveryStore(DSLContext db) {
        this.db = db;
    }

    /** @param born after so many snapshots of its volume */
    record Row(RoadStore.Place place, FileRow file, Contents contents, int born) {}

    void add(List<Row> rows) {
        LoadStore buffer = new LoadStore(
                        "file",
                        "catalogue_no,folder_no,name,bytes,allocated,owner,owner_group,modified_at,accessed_at,changed_at,kind,"
                                + "counted,extents,born,created_at")
                .exactly();
        load(buffer, rows, row -> {
            FileRow file = row.file;
            buffer.number(row.place.catalogue()).number(row.place.folder()).bytes(file.name());
            buffer.number(file.bytes())
                    .number(file.allocated())
                    .text(file.owner())
                    .text(file.group());
            buffer.number(file.modified()).number(file.accessed()).number(file.changed());
            buffer.number(file.kind().ordinal())
                    .number(1)
                    .bytes(ContentsCode.write(row.contents))
                    .number(row.born)
                    .number(file.changed())
                    .endRow();
        });
    }

    private <T> void load(LoadStore buffer, List<T> all, Consumer<T> write) {
        db.connection(connection -> {
            for (T one : all) {
                write.accept(one);
                if (buffer.size() > LOAD_BYTES) {
                    buffer.flush(connection);
                }
            }
            buffer.flush(connection);
        });
    }
}
