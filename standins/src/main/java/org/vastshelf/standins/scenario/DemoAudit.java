package org.vastshelf.standins.scenario;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Random;
import java.util.function.Consumer;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.unit.Bytes;

/** A month of what people did before the first day of the demo. */
public final class DemoAudit {

    public static final int LINES = 500_000;
    private static final Instant END = Instant.parse("2026-03-02T07:59:00Z");
    private static final List<String> SHARES =
            List.of("homes", "homes", "homes", "office", "office", "herbarium", "film", "plans", "press");

    private DemoAudit() {}

    /** Hands over the lines in order; each is a few seconds after the one before. */
    public static void lines(List<String> people, int count, Consumer<AuditLine> to) {
        Random random = new Random(20_260_302);
        long step = 30L * 86_400_000_000L / count;
        for (int n = 1; n <= count; n++) {
            long back = (count - n) * step + random.nextInt((int) (step / 2));
            to.accept(line(n, END.minus(back, ChronoUnit.MICROS), people, random));
        }
    }

    private static AuditLine line(int n, Instant at, List<String> people, Random random) {
        int who = random.nextInt(people.size());
        String person = people.get(who);
        String share = SHARES.get(random.nextInt(SHARES.size()));
        int dice = random.nextInt(100);
        String operation = dice < 62 ? "READ" : dice < 92 ? "WRITE" : dice < 96 ? "DELETE" : "LIST";
        boolean refused = person.equals("suki") && operation.equals("WRITE") && share.equals("homes");
        String folder = share.equals("homes") ? person : "shared-" + random.nextInt(40);
        long bytes = operation.equals("WRITE") ? 1 + Math.abs(random.nextLong() % (200 * Bytes.MIB)) : 0;
        return new AuditLine(
                n,
                at,
                person,
                "10.20." + (4 + who / 200) + "." + (10 + who % 200),
                share,
                operation,
                "/" + folder + "/2026/file-" + random.nextInt(100_000) + ".odt",
                "",
                bytes,
                refused ? "REFUSED" : "ALLOWED",
                refused ? "Limit of /suki (Stop) may hold 150.00 GiB" : "allowed");
    }
}
