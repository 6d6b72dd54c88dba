package org.vastshelf.app.away;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.unit.Bytes;

/** What has left: looked through, recalled, and brought back where its file was deleted or changed since. */
@Service
public class Returning {

    private final AwayStore objects;
    private final FileRoad road;
    private final EstateStore estates;
    private final Transactions transactions;

    Returning(AwayStore objects, FileRoad road, EstateStore estates, Transactions transactions) {
        this.objects = objects;
        this.road = road;
        this.estates = estates;
        this.transactions = transactions;
    }

    /**
     * Something that has left.
     *
     * @param number by which it is known
     * @param path of the file when it left
     * @param unusedSince since when no file refers to it
     * @param goesAt when it is removed, if none does until then
     */
    public record Left(
            long number,
            String store,
            String key,
            String share,
            String path,
            long bytes,
            boolean recipe,
            boolean encrypted,
            String owner,
            Instant modified,
            Instant leftAt,
            Optional<Instant> unusedSince,
            Optional<Instant> goesAt) {

        static Left of(AwayObject object) {
            return new Left(
                    object.number(),
                    object.store(),
                    object.key(),
                    object.share(),
                    object.path().text(),
                    object.bytes(),
                    object.form() == ObjectForm.RECIPE,
                    object.isSealed(),
                    object.file().owner(),
                    Instant.ofEpochSecond(object.file().modified()),
                    object.left(),
                    object.unused(),
                    object.unused().map(since -> since.plus(Duration.ofDays(object.keepDays()))));
        }
    }

    /**
     * What has left, the newest first.
     *
     * @param share empty for all
     * @param text part of the path; empty for any
     * @param unused only that to which no file refers
     * @param before only what has a smaller number
     */
    public List<Left> list(String share, String text, boolean unused, long before, int most) {
        return objects.list(share, text, unused, before, most).stream()
                .map(Left::of)
                .toList();
    }

    /** All that has left of one file, the newest first. */
    public List<Left> versions(String share, FilePath path, int most) {
        return objects.versions(share, path, most).stream().map(Left::of).toList();
    }

    public Left find(long number) {
        return objects.find(number).map(Left::of).orElseThrow(() -> unknown(number));
    }

    private static NotFound unknown(long number) {
        return new NotFound("object", String.valueOf(number));
    }

    /** Brings a file back from where it lies. */
    public Outcome recall(String share, FilePath path, String who) {
        return road.recall(operation(FileOperation.Kind.RECALL, share, path, 0, who));
    }

    /**
     * Puts a file in its place, or in another, that reads what an object holds, with its owner and its times.
     *
     * @param to empty for where it was
     * @param replaces whether a file that is there gives way
     * @throws Taken when there is one, and it does not
     */
    public Outcome bringBack(long number, Optional<FilePath> to, boolean replaces, String who) {
        return transactions.run(() -> {
            AwayObject object = objects.hold(number).orElseThrow(() -> unknown(number));
            return place(object, object.share(), to.orElse(object.path()), replaces, who);
        });
    }

    /** The same for an object that can't go away meanwhile. */
    Outcome place(AwayObject object, String share, FilePath to, boolean replaces, String who) {
        return road.bringBack(
                operation(FileOperation.Kind.RESTORE, share, to, object.bytes(), who),
                Contents.cold(object.number(), object.bytes()),
                object.file(),
                replaces);
    }

    private FileOperation operation(FileOperation.Kind kind, String share, FilePath path, long bytes, String who) {
        Share known =
                Optional.ofNullable(estates.load().shares().get(share)).orElseThrow(() -> new NotFound("share", share));
        return new FileOperation(kind, who, share, path, Bytes.of(bytes), Workstations.of(known, who));
    }
}
