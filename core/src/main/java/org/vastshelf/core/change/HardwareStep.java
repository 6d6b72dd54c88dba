package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Counted;

/** Steps on what stands in a rack. */
public sealed interface HardwareStep extends Step {

    record AddEnclosure(Arrival arrival) implements HardwareStep {
        @Override
        public String title() {
            return "Take enclosure " + arrival.enclosure().key() + " with "
                    + Counted.of(arrival.drives().size(), "drive") + " in";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(45);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            String key = arrival.enclosure().key();
            return Steps.unless(!estate.enclosures().containsKey(key), "enclosure " + key + " is there already")
                    .or(() -> Steps.unless(
                            arrival.equals(estate.arrivals().get(key)),
                            "enclosure " + key + " is not as the rescan saw it any more"));
        }

        @Override
        public List<String> servers(Estate estate) {
            return List.of(arrival.enclosure().server());
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.with(Kinds.ENCLOSURE, arrival.enclosure())
                    .withDrives(arrival.drives())
                    .without(Kinds.ARRIVAL, arrival.enclosure().key());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.without(Kinds.ENCLOSURE, arrival.enclosure().key())
                    .without(
                            Kinds.DRIVE,
                            arrival.drives().stream().map(Drive::key).toList())
                    .with(Kinds.ARRIVAL, arrival);
        }
    }

    record RemoveEnclosure(Enclosure enclosure, List<Drive> drives) implements HardwareStep {
        @Override
        public String title() {
            return "Take enclosure " + enclosure.key() + " with " + Counted.of(drives.size(), "drive") + " out";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(30);
        }

        @Override
        public Step on(Estate estate) {
            return new RemoveEnclosure(enclosure, estate.drivesIn(enclosure).toList());
        }

        @Override
        public List<String> servers(Estate estate) {
            return List.of(enclosure.server());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Steps.unless(
                    !estate.enclosures().containsKey(enclosure.key()),
                    "enclosure " + enclosure.key() + " was taken in again since");
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            if (!enclosure.equals(estate.enclosures().get(enclosure.key()))) {
                return Optional.of("enclosure " + enclosure.key() + " is not there any more");
            }
            return estate.drivesIn(enclosure)
                    .filter(d -> estate.poolOf(d).isPresent())
                    .findFirst()
                    .map(d -> "drive " + d.key() + " belongs to pool "
                            + estate.poolOf(d).orElseThrow().name());
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.without(Kinds.DRIVE, drives.stream().map(Drive::key).toList())
                    .without(Kinds.ENCLOSURE, enclosure.key());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.with(Kinds.ENCLOSURE, enclosure).withDrives(drives);
        }
    }

    /** Drives that somebody takes out of their bays. */
    record TakeOutDrives(List<Drive> drives) implements HardwareStep {
        @Override
        public String title() {
            return "Take " + Counted.of(drives.size(), "drive") + " out of the bays";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(10);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return drives.stream()
                    .flatMap(d -> Stream.ofNullable(estate.drives().get(d.key())))
                    .filter(d -> estate.poolOf(d).isPresent())
                    .findFirst()
                    .map(d -> "drive " + d.key() + " belongs to pool "
                            + estate.poolOf(d).orElseThrow().name());
        }

        @Override
        public Step on(Estate estate) {
            return new TakeOutDrives(drives.stream()
                    .flatMap(d -> Stream.ofNullable(estate.drives().get(d.key())))
                    .toList());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return drives.stream()
                    .filter(d -> estate.drives().containsKey(d.key()))
                    .findFirst()
                    .map(d -> "bay " + d.key() + " holds another drive since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.without(Kinds.DRIVE, drives.stream().map(Drive::key).toList());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withDrives(drives);
        }
    }
}
