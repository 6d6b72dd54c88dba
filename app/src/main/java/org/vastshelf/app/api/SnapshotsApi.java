package org.vastshelf.app.api;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.snapshot.BringingBack;
import org.vastshelf.app.snapshot.Comparing;
import org.vastshelf.app.snapshot.EarlierVersions;
import org.vastshelf.app.snapshot.Finding;
import org.vastshelf.app.snapshot.HoldCheck;
import org.vastshelf.app.snapshot.SnapshotHolds;
import org.vastshelf.app.snapshot.SnapshotViews;
import org.vastshelf.app.snapshot.Snapshots;
import org.vastshelf.app.snapshot.Versions;
import org.vastshelf.core.estate.FilePath;

/** Snapshots of volumes, and what is brought back from them. */
@RestController
class SnapshotsApi {

    private static final int MOST_LISTED = 1_000;

    private final Snapshots snapshots;
    private final SnapshotViews views;
    private final SnapshotHolds holds;
    private final BringingBack back;
    private final EarlierVersions versions;
    private final Finding finding;
    private final HoldCheck check;
    private final Comparing comparing;
    private final Versions history;

    SnapshotsApi(
            Snapshots snapshots,
            SnapshotViews views,
            SnapshotHolds holds,
            BringingBack back,
            EarlierVersions versions,
            Finding finding,
            HoldCheck check,
            Comparing comparing,
            Versions history) {
        this.comparing = comparing;
        this.history = history;
        this.finding = finding;
        this.versions = versions;
        this.snapshots = snapshots;
        this.views = views;
        this.holds = holds;
        this.back = back;
        this.check = check;
    }

    record Name(@Nullable String name) {}

    record Taken(int number) {}

    record Numbers(List<Integer> numbers) {}

    record Freed(long freedBytes) {}

    /** @param next what to ask for as {@code after} to have the next part; empty after the last */
    record Listing(List<String> folders, List<Entry> files, String next) {}

    record Entry(String name, long bytes, String owner, Instant changed) {}

    record Wanted(
            String path, @Nullable String to, @Nullable Boolean replace) {}

    @GetMapping("/api/v1/volumes/{volume}/snapshots")
    List<SnapshotViews.View> list(@PathVariable String volume) {
        return views.list(volume);
    }

    @PostMapping("/api/v1/volumes/{volume}/snapshots")
    Taken take(@AuthenticationPrincipal Someone me, @PathVariable String volume, @RequestBody Name body) {
        return new Taken(snapshots.take(me.getName(), volume, body.name == null ? "" : body.name));
    }

    @GetMapping("/api/v1/volumes/{volume}/snapshots/freed")
    Freed freed(@PathVariable String volume, @RequestParam List<Integer> numbers) {
        return new Freed(views.freed(volume, numbers));
    }

    @PostMapping("/api/v1/volumes/{volume}/snapshots/delete")
    Freed delete(@AuthenticationPrincipal Someone me, @PathVariable String volume, @RequestBody Numbers body) {
        return new Freed(snapshots.delete(me.getName(), volume, body.numbers));
    }

    record Lock(LocalDate until) {}

    /** Lets nobody delete a snapshot before a day. */
    @PostMapping("/api/v1/volumes/{volume}/snapshots/{number}/lock")
    List<SnapshotViews.View> lock(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @PathVariable int number,
            @RequestBody Lock body) {
        holds.lock(
                me.getName(),
                volume,
                List.of(number),
                body.until.atStartOfDay(ShelfClock.ZONE).toInstant());
        return views.list(volume);
    }

    /**
     * What is different between two states of a folder.
     *
     * @param from number of a snapshot, and to of another; 0 for what is there now
     */
    @GetMapping("/api/v1/shares/{share}/compare")
    Comparing.Answer compare(
            @PathVariable String share,
            @RequestParam int from,
            @RequestParam(defaultValue = "0") int to,
            @RequestParam(defaultValue = "/") String path) {
        return comparing.compare(new Comparing.Question(share, from, to, new FilePath(path)));
    }

    /** The history of one file. */
    @GetMapping("/api/v1/shares/{share}/history")
    List<Versions.Version> history(@PathVariable String share, @RequestParam String path) {
        return history.of(share, new FilePath(path), MOST_LISTED);
    }

    /** A folder of a share as a snapshot has it, part by part. */
    @GetMapping("/api/v1/shares/{share}/snapshots/{number}/listing")
    Listing listing(
            @PathVariable String share,
            @PathVariable int number,
            @RequestParam(defaultValue = "/") String path,
            @RequestParam(defaultValue = "") String after,
            @RequestParam(defaultValue = "200") int most) {
        requireListable(most);
        BringingBack.Folder folder = back.look(new BringingBack.Source(share, number, new FilePath(path)), after, most);
        return new Listing(
                folder.folders(),
                folder.files().stream()
                        .map(f -> new Entry(f.shownName(), f.bytes(), f.owner(), Instant.ofEpochSecond(f.modified())))
                        .toList(),
                folder.next());
    }

    /** What has a text in its name, over all snapshots of a share, and is not as it was. */
    @GetMapping("/api/v1/shares/{share}/past")
    List<Finding.Found> find(
            @PathVariable String share, @RequestParam String q, @RequestParam(defaultValue = "200") int most) {
        requireListable(most);
        return finding.find(share, q, most);
    }

    private static void requireListable(int most) {
        if (most < 1 || most > MOST_LISTED) {
            throw new IllegalArgumentException("most is " + most + ", must be from 1 to " + MOST_LISTED);
        }
    }

    /** Brings a file back, to where it was unless another path is given. */
    @PostMapping("/api/v1/shares/{share}/snapshots/{number}/bring-back")
    DeskApi.Answer bringBack(
            @AuthenticationPrincipal Someone me,
            @PathVariable String share,
            @PathVariable int number,
            @RequestBody Wanted body) {
        FilePath path = new FilePath(body.path);
        return DeskApi.Answer.of(back.bring(
                me.getName(),
                new BringingBack.Source(share, number, path),
                body.to == null ? path : new FilePath(body.to),
                Boolean.TRUE.equals(body.replace)));
    }

    record Earlier(
            String person,
            String share,
            String path,
            int snapshot,
            @Nullable String to) {}

    /** Earlier versions of a person's files in a folder. */
    @GetMapping("/api/v1/desk/earlier")
    List<EarlierVersions.Earlier> earlier(
            @AuthenticationPrincipal Someone me,
            @RequestParam String person,
            @RequestParam String share,
            @RequestParam(defaultValue = "/") String path) {
        DeskApi.requireMay(me, person);
        return versions.of(person, share, new FilePath(path), MOST_LISTED);
    }

    /** Saves one of them, as the person whose it is. */
    @PostMapping("/api/v1/desk/earlier")
    DeskApi.Answer bringEarlier(@AuthenticationPrincipal Someone me, @RequestBody Earlier body) {
        DeskApi.requireMay(me, body.person);
        return DeskApi.Answer.of(versions.bring(
                body.person,
                body.share,
                new FilePath(body.path),
                body.snapshot,
                Optional.ofNullable(body.to).map(FilePath::new)));
    }

    /** Looks whether snapshots hold what was counted; what does not agree is told. */
    @PostMapping("/api/v1/snapshots/looks")
    List<HoldCheck.Drift> look() {
        return check.look();
    }
}
