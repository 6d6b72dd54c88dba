package org.vastshelf.app.snapshot;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.vastshelf.app.orders.PlanFacts;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.FileChange.BringBack;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** What a draft meets that brings files back: how many, what gives way, and whether there is room. */
@Component
class RestoreFacts implements PlanFacts {

    private static final int NAMED = 5;

    private final Laying laying;
    private final SnapshotStore snapshots;
    private final EstateStore estates;
    private final UsageStore usage;
    private final Transactions transactions;

    RestoreFacts(
            Laying laying, SnapshotStore snapshots, EstateStore estates, UsageStore usage, Transactions transactions) {
        this.laying = laying;
        this.snapshots = snapshots;
        this.estates = estates;
        this.usage = usage;
        this.transactions = transactions;
    }

    /** What bringing back comes to, by what happens to files. */
    record Found(long files, long bytes, long same, List<String> replaced, List<String> left, List<String> cleared) {}

    Found find(BringBack change) {
        return transactions.run(() -> {
            long files = 0;
            long bytes = 0;
            long same = 0;
            List<String> replaced = new ArrayList<>();
            List<String> left = new ArrayList<>();
            List<String> cleared = new ArrayList<>();
            for (Laying.Pair pair : laying.folders(change).values()) {
                for (Laying.Deed deed : laying.deeds(change, pair)) {
                    switch (deed.kind()) {
                        case SAME -> same++;
                        case LEAVE -> left.add(deed.to().text());
                        case CLEAR -> cleared.add(deed.to().text());
                        case REPLACE -> replaced.add(deed.to().text());
                        case BRING -> {}
                    }
                    if (deed.kind() == Laying.Kind.BRING || deed.kind() == Laying.Kind.REPLACE) {
                        files++;
                        bytes += deed.was().orElseThrow().row().bytes();
                    }
                }
            }
            return new Found(files, bytes, same, replaced, left, cleared);
        });
    }

    /** The change with the bytes that it brings back. */
    public BringBack measured(BringBack change) {
        return new BringBack(
                change.share(),
                change.snapshot(),
                change.from(),
                change.names(),
                change.to(),
                change.onto(),
                find(change).bytes);
    }

    @Override
    public List<Check> checks(Change change, UnitSystem units) {
        return change instanceof BringBack back ? checks(back, units) : List.of();
    }

    private List<Check> checks(BringBack change, UnitSystem units) {
        Estate estate = estates.load();
        String key = "bring back " + change.share() + ": ";
        Share share = estate.shares().get(change.share());
        if (share == null) {
            return List.of();
        }
        if (snapshots.of(share.volume()).stream().noneMatch(taken -> taken.number() == change.snapshot())) {
            return List.of(Check.refuse(
                    key + "snapshot",
                    "There is no snapshot " + change.snapshot() + " of volume " + share.volume(),
                    ""));
        }
        Found found;
        try {
            found = find(change);
        } catch (NotThere gone) {
            return List.of(Check.refuse(key + "there", String.valueOf(gone.getMessage()), ""));
        }
        return Stream.of(
                        List.of(Check.fine(
                                key + "files",
                                "To be brought back: " + Counted.of(found.files, "file") + " of "
                                        + units.format(Bytes.of(found.bytes)) + "; there as they were: "
                                        + found.same)),
                        named(key + "replaced", found.replaced, "replaced", true),
                        named(key + "left", found.left, "left as they are", false),
                        named(key + "cleared", found.cleared, "taken away", true),
                        room(key, estate.volumes().get(share.volume()), found, units))
                .flatMap(List::stream)
                .toList();
    }

    private static List<Check> named(String key, List<String> paths, String what, boolean confirm) {
        if (paths.isEmpty()) {
            return List.of();
        }
        String text = Counted.of(paths.size(), "file") + " " + what + ": "
                + String.join(", ", paths.subList(0, Math.min(NAMED, paths.size())))
                + (paths.size() > NAMED ? ", …" : "");
        return List.of(new Check(confirm ? Check.Verdict.CONFIRM : Check.Verdict.WATCH, key, text, ""));
    }

    /** What is brought back takes room anew: snapshots go on holding what they hold. */
    private List<Check> room(String key, Volume volume, Found found, UnitSystem units) {
        Bytes free = volume.size().minusOrZero(usage.load().of(volume.name()).used());
        return Bytes.of(found.bytes).isMoreThan(free)
                ? List.of(Check.refuse(
                        key + "room",
                        "It takes " + units.format(Bytes.of(found.bytes)) + ", and volume " + volume.name()
                                + " has room for " + units.format(free),
                        "make the volume larger, or bring back less"))
                : List.of();
    }
}
