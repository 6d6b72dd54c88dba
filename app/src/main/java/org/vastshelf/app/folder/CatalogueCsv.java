package org.vastshelf.app.folder;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.Reader;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.Semaphore;
import javax.sql.DataSource;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AgeTallyStore;
import org.vastshelf.app.catalogue.BulkStore;
import org.vastshelf.app.catalogue.CatalogueRowStore;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.ScanState;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.kit.SpreadsheetText;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.Names;

/**
 * Catalogues as CSV (RFC 4180): one file a line, times as ISO 8601, bytes of a path that are not plain text as
 * {@code \xHH}. Files of one folder come together, as the export writes them. Both directions stream.
 */
@Component
public class CatalogueCsv {

    private static final String[] COLUMNS = {
        "path", "bytes", "allocated", "owner", "group", "modified", "accessed", "changed", "kind", "counted"
    };

    private final DataSource source;
    private final CatalogueStore catalogues;
    private final FolderService folders;
    /** Each holds two connections; many at once would wait for their second one in a circle. */
    private final Semaphore atOnce = new Semaphore(2);

    CatalogueCsv(DataSource source, CatalogueStore catalogues, FolderService folders) {
        this.source = source;
        this.catalogues = catalogues;
        this.folders = folders;
    }

    /** As a download. */
    public void write(Catalogue catalogue, HttpServletResponse response) throws SQLException, IOException {
        response.setContentType("text/csv;charset=UTF-8");
        response.setHeader("Content-Disposition", "attachment; filename=" + catalogue.name() + ".csv");
        try (Writer out = new OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8)) {
            write(catalogue, out);
        }
    }

    void write(Catalogue catalogue, Writer out) throws SQLException, IOException {
        try (Connection connection = source.getConnection();
                CSVPrinter csv = new CSVPrinter(
                        out, CSVFormat.RFC4180.builder().setHeader(COLUMNS).get())) {
            new CatalogueRowStore(connection, catalogue.no())
                    .eachFile((folder, path, file, counted) -> csv.printRecord(
                            PathBytes.shown(PathBytes.child(path, file.name())),
                            file.bytes(),
                            file.allocated(),
                            SpreadsheetText.written(file.owner()),
                            SpreadsheetText.written(file.group()),
                            Instant.ofEpochSecond(file.modified()),
                            Instant.ofEpochSecond(file.accessed()),
                            Instant.ofEpochSecond(file.changed()),
                            file.kind(),
                            counted ? 1 : 0));
        }
    }

    /**
     * Reads a new catalogue; nothing is kept when a line is wrong.
     *
     * @throws IllegalArgumentException naming line, column and value
     */
    public void read(String name, Reader in) throws SQLException, IOException {
        Names.require("name", name);
        folders.requireFree(name);
        Catalogue catalogue = catalogues.create(name, Source.TABLE, "");
        boolean complete = false;
        atOnce.acquireUninterruptibly();
        try (Connection connection = source.getConnection();
                Connection second = source.getConnection();
                var csv = CSVFormat.RFC4180
                        .builder()
                        .setHeader()
                        .setSkipHeaderRecord(true)
                        .get()
                        .parse(in)) {
            connection.setAutoCommit(false);
            second.setAutoCommit(false);
            requireColumns(csv.getHeaderMap());
            try (Import coming = new Import(connection, second, catalogue)) {
                coming.run(csv);
            }
            complete = true;
        } finally {
            atOnce.release();
            if (!complete) {
                catalogues.remove(catalogue.no());
            }
        }
        catalogues.state(catalogue.no(), ScanState.COMPLETE);
    }

    private static void requireColumns(Map<String, Integer> found) {
        for (String column : COLUMNS) {
            if (!found.containsKey(column)) {
                throw new IllegalArgumentException(
                        "the first line has no column '" + column + "', must have " + String.join(", ", COLUMNS));
            }
        }
    }

    /** One import on its way; the numbers of so many folders are remembered, further ones looked up. */
    private static final class Import implements AutoCloseable {

        private static final int REMEMBERED = 1_000_000;
        private static final int MOST_DIGITS = 18;

        private final Connection connection;
        private final Connection second;
        private final Catalogue catalogue;
        private final BulkStore writer;
        private final CatalogueRowStore rows;
        private String folder = "";
        private final Map<String, Integer> numbers = new HashMap<>();

        Import(Connection connection, Connection second, Catalogue catalogue) {
            this.connection = connection;
            this.second = second;
            this.catalogue = catalogue;
            this.writer = BulkStore.beside(catalogue.no(), connection, second);
            this.rows = new CatalogueRowStore(connection, catalogue.no());
            numbers.put("/", writer.folder(0, 0, PathBytes.of("/")));
        }

        void run(Iterable<CSVRecord> lines) throws SQLException {
            for (CSVRecord line : lines) {
                add(line);
            }
            writer.flush();
            second.commit();
            writer.complete();
            AgeTallyStore.sumUp(connection, catalogue.no());
            rows.progress(new CatalogueRowStore.Progress(
                    writer.nextFolder(), writer.nextFolder() - 1, writer.files(), writer.bytes(), 0, 0));
            connection.commit();
        }

        @Override
        public void close() {
            writer.close();
        }

        private void add(CSVRecord line) throws SQLException {
            String path = line.get("path");
            int slash = path.lastIndexOf('/');
            if (!path.startsWith("/") || slash == path.length() - 1) {
                throw wrong(line, "path", path, "a path that begins with '/' and ends with a name");
            }
            String parent = slash == 0 ? "/" : path.substring(0, slash);
            if (!parent.equals(folder)) {
                writer.inFolder(number(line, parent));
                folder = parent;
            }
            byte[] name = PathBytes.parse(path.substring(slash + 1));
            writer.file(
                    new FileRow(
                            name,
                            bytes(line, "bytes"),
                            bytes(line, "allocated"),
                            SpreadsheetText.read(line.get("owner")),
                            SpreadsheetText.read(line.get("group")),
                            time(line, "modified"),
                            time(line, "accessed"),
                            time(line, "changed"),
                            FileKind.of(path)),
                    !line.get("counted").equals("0"));
        }

        private int number(CSVRecord line, String path) throws SQLException {
            Integer known = numbers.get(path);
            if (known != null) {
                return known;
            }
            int slash = path.lastIndexOf('/');
            int parent = number(line, slash == 0 ? "/" : path.substring(0, slash));
            byte[] bytes = PathBytes.parse(path);
            Integer stored = stored(bytes);
            int depth = (int) path.chars().filter(c -> c == '/').count();
            int no = stored == null ? writer.folder(parent, depth, bytes) : stored;
            if (numbers.size() < REMEMBERED) {
                numbers.put(path, no);
            }
            return no;
        }

        /** As long as all folders are remembered, one that is not known is new. */
        private @Nullable Integer stored(byte[] path) throws SQLException {
            if (numbers.size() < REMEMBERED) {
                return null;
            }
            writer.flush();
            return rows.folder(path);
        }

        private static long bytes(CSVRecord line, String column) {
            String text = line.get(column);
            boolean digits = !text.isEmpty() && text.length() <= MOST_DIGITS;
            for (int i = 0; i < text.length() && digits; i++) {
                digits = text.charAt(i) >= '0' && text.charAt(i) <= '9';
            }
            if (!digits) {
                throw wrong(line, column, text, "a number of bytes, at least 0");
            }
            return Long.parseLong(text);
        }

        private static long time(CSVRecord line, String column) {
            try {
                return Moments.seconds(line.get(column));
            } catch (DateTimeParseException none) {
                throw wrong(line, column, line.get(column), "a time such as 2026-03-02T08:00:00Z");
            }
        }

        private static IllegalArgumentException wrong(CSVRecord line, String column, String value, String rule) {
            String shown = value.length() > 60 ? value.substring(0, 60) + "…" : value;
            return new IllegalArgumentException(
                    "line " + (line.getRecordNumber() + 1) + ": " + column + " is '" + shown + "', must be " + rule);
        }
    }
}
