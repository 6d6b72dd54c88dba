package org.vastshelf.core.gate;

import java.time.Instant;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.vastshelf.core.estate.Basis;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.LegalTag;
import org.vastshelf.core.estate.PathTable;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/** All that the gate looks at, as it is at one moment, grouped by the checkpoint that looks at it. */
public record GateView(Reach reach, Access access, Retention retention, Limits limits, Space space) {

    /** Where nothing is there yet that could be held. */
    public GateView(Reach reach, Access access, Limits limits, Space space) {
        this(reach, access, Retention.NONE, limits, space);
    }

    /**
     * How clients get there.
     *
     * @param poolLost whether the pool has lost data, so that nothing on it can be trusted
     * @param halted why writes are refused, where each has to go to a copy that does not answer; empty for not
     */
    public record Reach(Share share, FileServer server, String pool, boolean poolLost, Optional<String> halted) {

        public Reach(Share share, FileServer server, String pool, boolean poolLost) {
            this(share, server, pool, poolLost, Optional.empty());
        }
    }

    /** Who asks, and what the share lets whom do. */
    public record Access(Share share, Person person) {}

    /**
     * What holds what is there.
     *
     * @param met rules, each with a file that it holds, or would if any
     * @param tags legal tags on the file, on a folder that encloses it, or on something in the folder
     * @param counted the time that nobody moves; sealed rules go by it
     */
    public record Retention(List<Met> met, List<LegalTag> tags, Instant counted) {
        public static final Retention NONE = new Retention(List.of(), List.of(), Instant.EPOCH);
    }

    /**
     * A retention rule that meets a file.
     *
     * @param heldFrom since when it holds it
     * @param freeAt when it lets go
     */
    public record Met(RetentionRule rule, FilePath file, Instant heldFrom, Instant freeAt) {
        boolean isHeld(Instant now, Instant counted) {
            return !now.isBefore(heldFrom) && (rule.isSealed() ? counted : now).isBefore(freeAt);
        }
    }

    /** Accounts by the folder that holds them; at one folder there can be several. */
    public record Limits(PathTable<List<Account>> accounts) {

        public static final Limits NONE = of(List.of());

        public static Limits of(Collection<Account> accounts) {
            Map<FilePath, List<Account>> byFolder = accounts.stream()
                    .collect(Collectors.groupingBy(
                            Account::folder, LinkedHashMap::new, Collectors.toUnmodifiableList()));
            return new Limits(PathTable.of(byFolder));
        }
    }

    /**
     * The room there is, and the file that the operation meets.
     *
     * @param room what may still be allocated on the volume: its own room, and the pool's too where it is thin
     * @param arriving what a move or a copy brings
     * @param away of what is saved, what lies in a cold store and takes nothing here
     */
    public record Space(Volume volume, Bytes room, Optional<Present> present, Arriving arriving, Bytes away) {

        /** Where all that is saved lies here. */
        public Space(Volume volume, Bytes room, Optional<Present> present, Arriving arriving) {
            this(volume, room, present, arriving, Bytes.ZERO);
        }

        /** For an operation on a single file. */
        public Space(Volume volume, Bytes room, Optional<Present> present) {
            this(volume, room, present, Arriving.NOTHING);
        }

        /** How much more counts for an account; all of it, where the file belonged to somebody else before. */
        long growth(FileOperation operation, Account account) {
            if (!operation.kind().saves()) {
                return Math.max(0, arriving.bytes().getOrDefault(account, 0L));
            }
            boolean counted = present.isPresent()
                    && account.counts(present.get().owner(), present.get().group());
            Basis basis = account.rule().basis();
            long before = counted
                    ? basis.of(
                            present.get().bytes().value(),
                            present.get().allocated().value())
                    : 0;
            return Math.max(0, basis.of(operation.bytes().value(), allocated(operation)) - before);
        }

        /** How much more it takes on the volume. */
        long allocation(FileOperation operation) {
            if (!operation.kind().saves()) {
                return arriving.allocated().value();
            }
            long before = present.map(Present::becomingFree).orElse(0L);
            return Math.max(0, allocated(operation) - before);
        }

        private long allocated(FileOperation operation) {
            return volume.allocatedBytes(operation.bytes().value() - away.value());
        }
    }

    /**
     * What a move or a copy brings to where it goes.
     *
     * @param bytes by the account for which they count; less than none where more leaves it
     * @param allocated what it takes on the volume beyond what it took before
     */
    public record Arriving(Map<Account, Long> bytes, Bytes allocated) {
        public static final Arriving NOTHING = new Arriving(Map.of(), Bytes.ZERO);
    }

    /**
     * A file that is there.
     *
     * @param bytes its length
     * @param allocated what it takes on the volume
     * @param held what of that snapshots go on holding when the operation has changed it
     */
    public record Present(Bytes bytes, Bytes allocated, Bytes held, String owner, String group) {

        /** May be less than nothing: a part that is written anew, and held as it was. */
        long becomingFree() {
            return allocated.value() - held.value();
        }
    }
}
