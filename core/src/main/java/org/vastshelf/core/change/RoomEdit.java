package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.unit.Bytes;

/** Edits of what a pool offers. */
public sealed interface RoomEdit extends PoolEdit {

    record KeepBack(Bytes next, Bytes before) implements RoomEdit {
        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return pool.reserve().equals(before)
                    ? Optional.empty()
                    : Optional.of("the reserve of pool " + pool.name() + " was changed meanwhile");
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            return estate.withPool(pool.withReserve(next));
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Pool pool) {
            return pool.reserve().equals(next)
                    ? Optional.empty()
                    : Optional.of("the reserve of pool " + pool.name() + " was changed since");
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            return estate.withPool(pool.withReserve(before));
        }
    }

    record Reserve(Bytes next, PaceClass nextPace, Bytes before, PaceClass paceBefore) implements RoomEdit {
        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return pool.reserved().equals(before) && pool.pace() == paceBefore
                    ? Optional.empty()
                    : Optional.of("reservation " + pool.name() + " was changed meanwhile");
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            return estate.withPool(pool.withReserved(next, nextPace));
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Pool pool) {
            return pool.reserved().equals(next) && pool.pace() == nextPace
                    ? Optional.empty()
                    : Optional.of("reservation " + pool.name() + " was changed since");
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            return estate.withPool(pool.withReserved(before, paceBefore));
        }
    }
}
