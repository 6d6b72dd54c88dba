package org.vastshelf.core.estate;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.unit.Bytes;

/**
 * How much a folder, each child folder of it, or each person or group with files below it may hold.
 * Without any level it only tracks.
 *
 * @param eachChild whether each child folder has an account of its own
 * @param apart whether each owner has an account of its own; not together with {@code eachChild}
 * @param basis which bytes count
 * @param warnAt notifies from here on
 * @param graceAt from here growth is allowed for the grace time only, then refused
 * @param graceTime counted from the moment usage passed the grace level; one minute to one year
 * @param stopAt refuses what would exceed it
 */
public record LimitRule(
        String share,
        FilePath path,
        boolean eachChild,
        Apart apart,
        Basis basis,
        Optional<Bytes> warnAt,
        Optional<Bytes> graceAt,
        Duration graceTime,
        Optional<Bytes> stopAt) {

    public static final Duration DEFAULT_GRACE = Duration.ofDays(7);

    public LimitRule {
        // Rules written before owners could have accounts do not name it.
        apart = apart == null ? Apart.NOBODY : apart;
        // Nor do those from before there was a choice name what counts.
        basis = basis == null ? Basis.AS_SEEN : basis;
        if (eachChild && apart != Apart.NOBODY) {
            throw new IllegalArgumentException(
                    "apart is " + apart + ", must be NOBODY where each child folder has an account");
        }
        requireOrder("grace level", graceAt, "warn level", warnAt);
        requireOrder("stop level", stopAt, "grace level", graceAt);
        requireOrder("stop level", stopAt, "warn level", warnAt);
        if (graceTime.compareTo(Duration.ofMinutes(1)) < 0 || graceTime.compareTo(Duration.ofDays(366)) > 0) {
            throw new IllegalArgumentException(
                    "grace time is " + graceTime.toMinutes() + " minutes, must be 1 minute to 366 days");
        }
    }

    /** A rule for what people see. */
    public LimitRule(
            String share,
            FilePath path,
            boolean eachChild,
            Apart apart,
            Optional<Bytes> warnAt,
            Optional<Bytes> graceAt,
            Duration graceTime,
            Optional<Bytes> stopAt) {
        this(share, path, eachChild, apart, Basis.AS_SEEN, warnAt, graceAt, graceTime, stopAt);
    }

    /** A rule for a folder, or for each child folder of it. */
    public LimitRule(
            String share,
            FilePath path,
            boolean eachChild,
            Optional<Bytes> warnAt,
            Optional<Bytes> graceAt,
            Duration graceTime,
            Optional<Bytes> stopAt) {
        this(share, path, eachChild, Apart.NOBODY, warnAt, graceAt, graceTime, stopAt);
    }

    private static void requireOrder(String upper, Optional<Bytes> high, String lower, Optional<Bytes> low) {
        if (high.isPresent() && low.isPresent() && low.get().isMoreThan(high.get())) {
            throw new IllegalArgumentException(upper + " is " + high.get().value() + " bytes, must be at least the "
                    + lower + " of " + low.get().value() + " bytes");
        }
    }

    /** Share, folder and who has accounts; one rule for each such key. No path has two slashes together. */
    public String key() {
        if (apart != Apart.NOBODY) {
            return share + ":" + (path.isRoot() ? "" : path) + "//" + apart.title();
        }
        return share + ":" + path + (eachChild ? (path.isRoot() ? "*" : "/*") : "");
    }

    /** In words, such as "homes /, each child folder". */
    public String title() {
        boolean isPlain = !eachChild && apart == Apart.NOBODY;
        return share + " " + path + (isPlain && basis == Basis.AS_SEEN ? "" : ", " + whose());
    }

    /** Who has an account, and by which bytes where it is not what people see, in words. */
    public String whose() {
        return who() + (basis == Basis.AS_SEEN ? "" : "," + basis.behind());
    }

    private String who() {
        if (apart != Apart.NOBODY) {
            return "each " + apart.title();
        }
        return eachChild ? "each child folder" : "the folder";
    }

    /** The folder whose bytes count where a write goes to {@code file}, if the rule covers it. */
    public Optional<FilePath> accountFor(FilePath file) {
        if (file.isRoot() || !file.parent().isWithin(path)) {
            return Optional.empty();
        }
        if (!eachChild) {
            return Optional.of(path);
        }
        int depth = path.parts().size();
        return file.parts().size() > depth + 1
                ? Optional.of(path.child(file.parts().get(depth)))
                : Optional.empty();
    }

    /** The strictest stance that the rule takes. */
    public Stance stance() {
        if (stopAt.isPresent()) {
            return Stance.STOP;
        }
        if (graceAt.isPresent()) {
            return Stance.GRACE;
        }
        return warnAt.isPresent() ? Stance.WARN : Stance.TRACK;
    }

    public Optional<Bytes> level(Stance stance) {
        return switch (stance) {
            case TRACK -> Optional.empty();
            case WARN -> warnAt;
            case GRACE -> graceAt;
            case STOP -> stopAt;
        };
    }
}
