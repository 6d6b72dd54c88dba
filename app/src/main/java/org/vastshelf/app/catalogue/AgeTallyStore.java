package org.vastshelf.app.catalogue;

import java.sql.Connection;
import java.sql.SQLException;
import org.vastshelf.core.catalogue.AgeBasis;

/** Sums up a catalogue by days, for plans that go by age. Catalogues of shares change all the time, and have no such sums. */
public final class AgeTallyStore {

    private AgeTallyStore() {}

    /** The column that tells the day of a file, which has an index. */
    public static String dayColumn(AgeBasis basis) {
        return switch (basis) {
            case LAST_USE -> "use_day";
            case LAST_CHANGE -> "change_day";
        };
    }

    /** The power of two in which a size lies. */
    public static String octave(String bytes) {
        return "IF(" + bytes + " = 0, -1, FLOOR(LOG2(" + bytes + ")))";
    }

    /**
     * Sums up anew.
     *
     * @throws SQLException when the database fails
     */
    public static void sumUp(Connection connection, int catalogue) throws SQLException {
        BulkStore.execute(connection, "DELETE FROM age_tally WHERE catalogue_no = ?", catalogue);
        for (AgeBasis basis : AgeBasis.values()) {
            BulkStore.execute(
                    connection,
                    "INSERT INTO age_tally SELECT f.catalogue_no, " + basis.ordinal() + ", f." + dayColumn(basis)
                            + " d, "
                            + octave("f.bytes") + """
                             o, t.top, COUNT(*), SUM(f.bytes)
                            FROM (SELECT x.no, COALESCE(top.no, 0) top FROM folder x
                                  LEFT JOIN folder top ON top.catalogue_no = x.catalogue_no AND top.depth = 1
                                      AND top.path_hash = LEFT(UNHEX(SHA2(SUBSTRING_INDEX(x.path, '/', 2), 256)), 16)
                                  WHERE x.catalogue_no = ?) t
                            JOIN file f ON f.catalogue_no = ? AND f.folder_no = t.no
                            WHERE f.counted = 1
                            GROUP BY d, o, t.top""",
                    catalogue,
                    catalogue);
        }
    }
}
