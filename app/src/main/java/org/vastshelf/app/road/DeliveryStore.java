package org.vastshelf.app.road;

import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import org.jooq.DSLContext;
import org.jooq.Row2;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.trace.AuditStore;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.unit.ShortText;

/** Rows of many files and their audit lines, written in a few statements. */
@Component
class DeliveryStore {

    private static final int LOAD_BYTES = 4 << 20;
    private static final int AT_ONCE = 1_000;

    private final DSLContext db;
    private final RoadStore files;

    DeliveryStore(DSLContext db, RoadStore files) {
        this.db = db;
        this.files = files;
    }

    record Row(RoadStore.Place place, FileRow file, Contents contents) {}

    record Line(FileOperation operation, Instant at, boolean allowed, String reason) {}

    /** Paths, of those asked for, at which there is a file already. */
    Set<FilePath> present(Map<FilePath, RoadStore.Place> places, List<FilePath> paths) {
        Map<Integer, FilePath> folders = new HashMap<>();
        places.forEach((folder, place) -> folders.put(place.folder(), folder));
        Set<FilePath> present = new HashSet<>();
        for (int from = 0; from < paths.size(); from += AT_ONCE) {
            List<FilePath> some = paths.subList(from, Math.min(paths.size(), from + AT_ONCE));
            List<Row2<Integer, byte[]>> keys = some.stream()
                    .map(path -> DSL.row(places.get(path.parent()).folder(), PathBytes.of(path.name())))
                    .toList();
            files.named(places.get(some.getFirst().parent()).catalogue(), keys)
                    .forEach((folder, names) -> names.forEach(
                            name -> present.add(folders.get(folder).child(PathBytes.shown(name)))));
        }
        return present;
    }

    void add(List<Row> rows, Epoch epoch) {
        LoadStore buffer = new LoadStore(
                "file",
                "catalogue_no,folder_no,name,bytes,allocated,owner,owner_group,modified_at,accessed_at,changed_at,kind,"
                        + "counted,extents,born,created_at");
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
                    .number(epoch.taken())
                    .number(file.changed())
                    .endRow();
        });
    }

    void note(List<Line> lines) {
        LoadStore buffer =
                new LoadStore("audit_pending", "at,person,client,share,operation,path,target,bytes,verdict,reason");
        load(buffer, lines, line -> {
            FileOperation operation = line.operation;
            buffer.text(Times.stored(line.at).toString()).text(operation.person());
            buffer.text(operation.client().address()).text(operation.share());
            buffer.text(operation.kind().name()).text(operation.path().text()).text("");
            buffer.number(operation.bytes().value()).text(line.allowed ? "ALLOWED" : "REFUSED");
            buffer.text(ShortText.of(line.reason, AuditStore.LONGEST_REASON)).endRow();
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
