package org.vastshelf.app.away;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.ComeBack;
import org.vastshelf.core.gate.FileOperation;

/**
 * What reads of files bring about that have left: after so many, a file comes back whole; and somebody who reads more of
 * them within an hour than anybody does, such as a backup or a search for viruses, is held back and told of.
 */
@Service
public class Reads {

    private static final Duration LET_GO = Duration.ofHours(12);
    private static final Duration HELD = Duration.ofHours(1);

    private final ReadStore reads;
    private final AwayStore objects;
    private final NoticeStore notices;
    private final Transactions transactions;
    private final ShelfClock clock;
    private final Deeds deeds;
    private final int most;

    Reads(
            ReadStore reads,
            AwayStore objects,
            NoticeStore notices,
            Transactions transactions,
            ShelfClock clock,
            Deeds deeds,
            Settings settings) {
        this.reads = reads;
        this.objects = objects;
        this.notices = notices;
        this.transactions = transactions;
        this.clock = clock;
        this.deeds = deeds;
        this.most = settings.rushFiles();
    }

    /** Somebody whose reads of files that have left are held back. */
    public record Held(String person, String address, Instant since) {}

    /**
     * Notes a read.
     *
     * @throws FarAway when it is one too many
     */
    void read(FileOperation operation, Contents away, Instant now) {
        long number = away.extents().getFirst().stream().number();
        boolean tooMany = transactions.run(() -> {
            reads.note(number, operation, now);
            objects.find(number)
                    .map(AwayObject::back)
                    .filter(back -> back.manner() == ComeBack.Manner.AFTER_READS)
                    .filter(back -> reads.reads(number, back.withinDays(), now) >= back.reads())
                    .ifPresent(back -> reads.wish(operation.share(), operation.path(), now));
            boolean rushes = reads.objects(operation, now) > most && !reads.isLetGo(operation, now);
            if (rushes) {
                held(operation, now);
            }
            return rushes;
        });
        if (tooMany) {
            throw new FarAway(operation.person() + " at " + operation.client().address() + " has read more than "
                    + most + " files from cold stores within an hour; what has left is held back until then, or until"
                    + " somebody who runs the estate lets it go");
        }
    }

    private void held(FileOperation operation, Instant now) {
        reads.hold(operation, now);
        notices.tellAdministratorsOnce(
                now,
                HELD,
                "A rush on cold stores: " + operation.person() + " at "
                        + operation.client().address(),
                "More than " + most + " files that have left were read from there within an hour, the last one '"
                        + operation.path() + "' on share " + operation.share()
                        + ". Reads from there are held back; let them go on What has left, if they are wanted.");
    }

    public List<Held> held() {
        return reads.held().stream()
                .map(rush -> new Held(rush.person(), rush.address(), rush.heldAt()))
                .toList();
    }

    /** Lets somebody read on for half a day. */
    public void letGo(String person, String address, String who) {
        transactions.run(() -> {
            if (!reads.letGo(person, address, clock.instant().plus(LET_GO))) {
                throw new NotFound("rush of " + person + " at", address);
            }
            deeds.done(who, Deeds.Kind.TIERING, "/lighten/left", "reads of " + person + " at " + address + " let go");
        });
    }

    /** What is over is forgotten. */
    void forget(Instant now) {
        reads.forgetHolds(now.minus(HELD), now);
        reads.forgetBefore(now.minus(Duration.ofDays(ComeBack.MOST_DAYS)));
    }
}
