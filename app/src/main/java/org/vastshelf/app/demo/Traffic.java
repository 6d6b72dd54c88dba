package org.vastshelf.app.demo;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.standins.scenario.DemoTraffic;

/** The demo's people at work: their saves take the same road as anybody's, through the gate. */
@Component
class Traffic implements DueWork {

    private static final Logger LOG = LoggerFactory.getLogger(Traffic.class);

    private final Settings settings;
    private final EstateStore estates;
    private final FileRoad road;
    private final Directory directory;

    Traffic(Settings settings, EstateStore estates, FileRoad road, Directory directory) {
        this.settings = settings;
        this.estates = estates;
        this.road = road;
        this.directory = directory;
    }

    @Override
    public DueKind kind() {
        return DueKind.TRAFFIC;
    }

    @Override
    public boolean isWanted() {
        return settings.demo() && settings.traffic();
    }

    @Override
    public void act(String share, Instant midnight) {
        LocalDate day = LocalDate.ofInstant(midnight, ShelfClock.ZONE).minusDays(1);
        Optional.ofNullable(estates.load().shares().get(share)).ifPresent(found -> save(found, day));
    }

    private void save(Share share, LocalDate day) {
        writer(share)
                .ifPresent(person -> DemoTraffic.of(share.name(), day).forEach(save -> {
                    FileOperation write = new FileOperation(
                            FileOperation.Kind.WRITE,
                            person.uid(),
                            share.name(),
                            new FilePath(save.path()),
                            save.bytes(),
                            Workstations.of(share, person.uid()));
                    boolean allowed = road.perform(write, save.at()).allowed();
                    LOG.debug("{} saved {} on {}: {}", person.uid(), save.path(), share.name(), allowed);
                }));
    }

    /** Somebody whom the share lets write: the first by name of its most trusted group. */
    private Optional<Person> writer(Share share) {
        return share.access().stream()
                .filter(rule -> rule.level() != AccessRule.Level.READ)
                .flatMap(rule -> directory.people().stream().filter(rule::appliesTo))
                .min(Comparator.comparing(Person::uid));
    }
}
