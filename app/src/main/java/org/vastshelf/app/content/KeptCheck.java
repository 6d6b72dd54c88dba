package org.vastshelf.app.content;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.EstateAnswer;

/**
 * Whether kept bytes are what files refer to, each midnight: what no file refers to is removed, a count that drifted is
 * mended, and what files refer to and is not there is told.
 */
@Component
public class KeptCheck implements DueWork {

    private final KeptCheckStore kept;
    private final KeptStore bytes;
    private final EstateStore estates;
    private final NoticeStore notices;
    private final ShelfClock clock;

    KeptCheck(KeptCheckStore kept, KeptStore bytes, EstateStore estates, NoticeStore notices, ShelfClock clock) {
        this.kept = kept;
        this.bytes = bytes;
        this.estates = estates;
        this.notices = notices;
        this.clock = clock;
    }

    /**
     * What one look found.
     *
     * @param contents and bytes that are kept, after it
     * @param removed contents to which no file referred, and their bytes
     * @param mended counts that were not what the files say
     * @param missing contents to which files refer and that are not there
     */
    public record Report(
            Instant at, long contents, long bytes, long removed, long removedBytes, long mended, long missing) {}

    @Override
    public DueKind kind() {
        return DueKind.KEPT;
    }

    @Override
    public void act(String everything, Instant midnight) {
        look(midnight);
    }

    @Override
    public boolean isOfNow() {
        return true;
    }

    @Override
    public boolean isUnhurried() {
        return true;
    }

    public Report look() {
        return look(clock.instant());
    }

    private Report look(Instant now) {
        Report[] report = new Report[1];
        // Nobody saves meanwhile.
        estates.change((estate, held) -> {
            report[0] = reconcile(now);
            return new EstateAnswer.Changed(estate);
        });
        if (report[0].missing > 0 || report[0].mended > 0) {
            notices.tellAdministrators(
                    now,
                    "Kept bytes were not as counted",
                    report[0].mended + " counts were mended; " + report[0].missing
                            + " contents that files refer to are missing.");
        }
        return report[0];
    }

    private Report reconcile(Instant now) {
        Map<Long, Long> references = kept.references();
        long contents = 0;
        long bytes = 0;
        long removed = 0;
        long removedBytes = 0;
        long mended = 0;
        for (KeptCheckStore.Counted one : kept.counted()) {
            long uses = Objects.requireNonNullElse(references.remove(one.number()), 0L);
            mended += uses == one.uses() ? 0 : 1;
            if (one.away()) {
                kept.settle(one.number(), uses);
            } else if (uses == 0) {
                this.bytes.remove(one.number());
                removed++;
                removedBytes += one.bytes();
            } else {
                kept.settle(one.number(), uses);
                contents++;
                bytes += one.bytes();
            }
        }
        Report report =
                new Report(now, contents, bytes, removed, removedBytes, mended, kept.missing(references.keySet()));
        kept.report(report);
        return report;
    }

    /** The latest looks, newest first. */
    public List<Report> reports(int most) {
        return kept.reports(most);
    }
}
