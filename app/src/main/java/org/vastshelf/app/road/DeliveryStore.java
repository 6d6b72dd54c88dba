package org.vastshelf.app.road;

import java.nio.ByteBuffer;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.Row2;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;

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

    /** @param born after so many snapshots of its volume */
    record Row(RoadStore.Place place, FileRow file, Contents contents, int born) {}

    /** A file that is there already. */
    record Present(int catalogue, int folder, ByteBuffer name) {
        static Present of(RoadStore.Place place, FilePath path) {
            return new Present(place.catalogue(), place.folder(), ByteBuffer.wrap(PathBytes.of(path.name())));
        }
    }

    /** Those of some files that are there already. */
    Set<Present> present(Collection<Present> asked) {
        Set<Present> present = new HashSet<>();
        List<Present> all = List.copyOf(asked);
        for (int from = 0; from < all.size(); from += AT_ONCE) {
            Map<Integer, List<Row2<Integer, byte[]>>> keys =
                    all.subList(from, Math.min(all.size(), from + AT_ONCE)).stream()
                            .collect(Collectors.groupingBy(
                                    Present::catalogue,
                                    TreeMap::new,
                                    Collectors.mapping(
                                            one -> DSL.row(one.folder, one.name.array()), Collectors.toList())));
            files.named(keys)
                    .forEach(found ->
                            present.add(new Present(found.catalogue(), found.folder(), ByteBuffer.wrap(found.name()))));
        }
        return present;
    }

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
