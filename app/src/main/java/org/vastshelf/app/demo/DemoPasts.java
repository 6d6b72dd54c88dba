package org.vastshelf.app.demo;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.snapshot.Snapshots;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.app.store.Times;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.life.Past;
import org.vastshelf.standins.scenario.Nights;

/** Writes the snapshots that volumes of the demo have, and what they hold of the month before. */
@Component
class DemoPasts {

    /** A span of snapshots: born before the first of them, died after the last. */
    private record Span(int born, int died) {

        boolean overlaps(Span other) {
            return born < other.died && other.born < died;
        }
    }

    /** Returns what they hold. */
    Bytes write(Connection connection, Volume volume, Nights nights, List<Past> pasts, ShareFiles.Loaded loaded)
            throws SQLException {
        if (nights.taken().isEmpty()) {
            return Bytes.ZERO;
        }
        snapshots(volume.name(), nights).flush(connection);
        LoadStore rows = new LoadStore(
                "file_past",
                "catalogue_no,folder_no,name,died,born,bytes,allocated,owner,owner_group,modified_at,accessed_at,"
                        + "changed_at,kind,extents");
        Map<String, List<Span>> known = new HashMap<>();
        SortedMap<Integer, SortedMap<Integer, Long>> held = new TreeMap<>();
        for (Past past : pasts) {
            Span span = new Span(nights.before(past.born()), nights.before(past.died()));
            List<Span> others = known.computeIfAbsent(past.folder() + "/" + past.name(), none -> new ArrayList<>());
            boolean shown = past.share().equals(volume.name())
                    && span.born < span.died
                    && others.stream().noneMatch(span::overlaps);
            if (shown) {
                others.add(span);
                long allocated = volume.allocatedBytes(past.contents().length());
                row(rows, loaded, past, span, allocated);
                held.computeIfAbsent(span.born, none -> new TreeMap<>()).merge(span.died, allocated, Long::sum);
            }
        }
        rows.flush(connection);
        LoadStore counts = new LoadStore("held_block", "volume,born,died,bytes");
        held.forEach((born, byDeath) -> byDeath.forEach((died, bytes) -> counts.text(volume.name())
                .number(born)
                .number(died)
                .number(bytes)
                .endRow()));
        counts.flush(connection);
        return Bytes.of(held.values().stream()
                .flatMap(byDeath -> byDeath.values().stream())
                .mapToLong(Long::longValue)
                .sum());
    }

    private static void row(LoadStore rows, ShareFiles.Loaded loaded, Past past, Span span, long allocated) {
        rows.number(loaded.catalogue()).number(loaded.folders().get(past.folder()));
        rows.bytes(PathBytes.of(past.name())).number(span.died).number(span.born);
        rows.number(past.contents().length()).number(allocated);
        rows.text(past.owner().uid()).text(past.owner().fileGroup());
        rows.number(past.born()).number(past.born()).number(past.born());
        rows.number(FileKind.of(past.name()).ordinal())
                .bytes(ContentsCode.write(past.contents()))
                .endRow();
    }

    private static LoadStore snapshots(String volume, Nights nights) {
        LoadStore rows = new LoadStore("snapshot", "volume,number,name,taken_at,taken_by,scheduled");
        int number = 0;
        for (Instant at : nights.taken()) {
            rows.text(volume)
                    .number(++number)
                    .text("nightly " + at.atZone(ZoneOffset.UTC).toLocalDate());
            rows.text(Times.stored(at).toString())
                    .text(Snapshots.SCHEDULE)
                    .number(1)
                    .endRow();
        }
        return rows;
    }
}
