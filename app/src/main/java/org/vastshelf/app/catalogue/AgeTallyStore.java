package org.vastshelf.app.catalogue;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.stream.Collectors;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.tier.AgeBand;

/** Sums up a catalogue by days, for plans that go by age. Catalogues of shares change all the time, and have no such sums. */
public final class AgeTallyStore {

    /** Folders, each with the one of the first level that encloses it. */
    static final String WITH_TOPS = """
            folder x FORCE INDEX (PRIMARY)
            LEFT JOIN folder top FORCE INDEX (folder_by_hash)
                ON top.catalogue_no = x.catalogue_no AND top.depth = 1
                AND top.path_hash = LEFT(UNHEX(SHA2(SUBSTRING_INDEX(x.path, '/', 2), 256)), 16)""";

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

    /** The number of the {@link AgeBand} of files of so many days. */
    public static Field<Integer> band(Field<Long> days) {
        // It is how many of the ascending bounds are reached.
        String bounds = AgeBand.ALL.stream()
                .skip(1)
                .map(band -> String.valueOf(band.leastDays()))
                .collect(Collectors.joining(", "));
        return DSL.field("INTERVAL({0}, " + bounds + ")", Integer.class, days);
    }

    /**
     * Sums up anew. The order of the tables is given: what was just loaded is not in the planner's figures yet, and it may
     * look for the enclosing folder of each among all.
     *
     * @throws SQLException when the database fails
     */
    public static void sumUp(Connection connection, int catalogue) throws SQLException {
        BulkStore.execute(connection, "DELETE FROM age_tally WHERE catalogue_no = ?", catalogue);
        for (AgeBasis basis : AgeBasis.values()) {
            BulkStore.execute(
                    connection,
                    "INSERT INTO age_tally SELECT STRAIGHT_JOIN f.catalogue_no, " + basis.ordinal() + ", f."
                            + dayColumn(basis) + " d, " + octave("f.bytes") + """
                             o, COALESCE(top.no, 0) t, COUNT(*), SUM(f.bytes)
                            FROM\s""" + WITH_TOPS + """
                             JOIN file f FORCE INDEX (PRIMARY)
                                ON f.catalogue_no = x.catalogue_no AND f.folder_no = x.no
                            WHERE x.catalogue_no = ? AND f.counted = 1
                            GROUP BY d, o, t""",
                    catalogue);
        }
        SizePageStore.write(connection, catalogue);
    }
}
