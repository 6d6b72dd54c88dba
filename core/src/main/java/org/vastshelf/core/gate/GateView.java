package org.vastshelf.core.gate;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.PathTable;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/** All that the gate looks at, as it is at one moment, grouped by the checkpoint that looks at it. */
public record GateView(Reach reach, Access access, Limits limits, Space space) {

    /**
     * How clients get there.
     *
     * @param poolLost whether the pool has lost data, so that nothing on it can be trusted
     */
    public record Reach(Share share, FileServer server, String pool, boolean poolLost) {}

    /** Who asks, and what the share lets whom do. */
    public record Access(Share share, Person person) {}

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
     */
    public record Space(Volume volume, Bytes room, Optional<Present> present) {

        /** How much more counts for an account; all of it, where the file belonged to somebody else before. */
        long growth(FileOperation operation, Account account) {
            boolean counted = present.isPresent()
                    && account.counts(present.get().owner(), present.get().group());
            long before = counted ? present.get().bytes().value() : 0;
            return operation.kind() == FileOperation.Kind.WRITE
                    ? Math.max(0, operation.bytes().value() - before)
                    : 0;
        }

        /** How much more it takes on the volume. */
        long allocation(FileOperation operation) {
            long before = present.isPresent() ? present.get().allocated().value() : 0;
            return operation.kind() == FileOperation.Kind.WRITE
                    ? Math.max(0, volume.allocatedBytes(operation.bytes().value()) - before)
                    : 0;
        }
    }

    /** A file that is there, with its length, what it takes on the volume, and whose it is. */
    public record Present(Bytes bytes, Bytes allocated, String owner, String group) {}
}
