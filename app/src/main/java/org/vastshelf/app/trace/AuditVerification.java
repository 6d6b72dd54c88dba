package org.vastshelf.app.trace;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.HexFormat;
import java.util.Optional;
import javax.sql.DataSource;
import org.springframework.stereotype.Service;
import org.vastshelf.core.audit.ChainCheck;
import org.vastshelf.core.audit.ChainCheck.Head;

/** Checks the stored chain of audit lines. */
@Service
public class AuditVerification {

    private final DataSource source;
    private final AuditChain chain;

    AuditVerification(DataSource source, AuditChain chain) {
        this.source = source;
        this.chain = chain;
    }

    /**
     * What was found, and the end to note for the next time.
     *
     * @param whole whether every line is as it was written
     */
    public record Report(boolean whole, String text, long number, String hash) {
        static Report of(ChainCheck.Finding finding, Head head) {
            return new Report(
                    finding instanceof ChainCheck.Whole,
                    finding.text(),
                    head.number(),
                    HexFormat.of().formatHex(head.hash()));
        }
    }

    public Report verify(Optional<Head> noted) {
        chain.extend();
        Head head = chain.head();
        try (Connection connection = source.getConnection()) {
            return Report.of(check(new AuditLineStore(connection), head, noted), head);
        } catch (SQLException e) {
            throw new IllegalStateException("the database does not answer", e);
        }
    }

    /** The head is read anew where lines were chained behind it while the check read, until it comes to rest. */
    static ChainCheck.Finding check(AuditLineStore reader, Head head, Optional<Head> noted) {
        ChainCheck.Finding finding = ChainCheck.of(reader::from, head, noted);
        Head now = reader.head();
        boolean grown = finding instanceof ChainCheck.Inserted inserted
                && inserted.number() == head.number() + 1
                && now.number() > head.number();
        return grown ? check(reader, now, noted) : finding;
    }

    /**
     * An end that was noted, as {@code number:hash}; empty for none.
     *
     * @throws IllegalArgumentException when it has another form
     */
    public static Optional<Head> noted(String text) {
        if (text.isBlank()) {
            return Optional.empty();
        }
        if (!text.strip().matches("[0-9]{1,18}:[0-9a-fA-F]{64}")) {
            throw new IllegalArgumentException(
                    "noted end is '" + text + "', must be a line's number, a colon and the 64 digits of its hash");
        }
        String[] parts = text.strip().split(":");
        return Optional.of(new Head(Long.parseLong(parts[0]), HexFormat.of().parseHex(parts[1])));
    }
}
