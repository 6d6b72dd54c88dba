package org.vastshelf.app.trace;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Optional;
import org.vastshelf.core.audit.ChainCheck.Head;

/**
 * {@code ./shelf audit verify}: checks the chain in the database that the environment names, whether the application
 * runs or not. Ends with 0 when every line is as it was written, with 1 when one is not.
 */
public final class VerifyAudit {

    private VerifyAudit() {}

    public static void main(String[] arguments) throws SQLException {
        Optional<Head> noted = AuditVerification.noted(arguments.length == 0 ? "" : arguments[0]);
        try (Connection connection = DriverManager.getConnection(
                System.getenv("VASTSHELF_DB_URL"),
                System.getenv("VASTSHELF_DB_USER"),
                System.getenv("VASTSHELF_DB_PASSWORD"))) {
            AuditLineStore reader = new AuditLineStore(connection);
            Head head = reader.head();
            var report = AuditVerification.Report.of(AuditVerification.check(reader, head, noted), head);
            System.out.println(report.text());
            System.out.println("To note for the next time: " + report.number() + ":" + report.hash());
            System.exit(report.whole() ? 0 : 1);
        }
    }
}
