package org.vastshelf.app.demo;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.look.DayLog;
import org.vastshelf.app.look.DayWork;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.standins.scenario.DemoTraffic;

/** The demo's people at work: their saves take the same road as anybody's, through the gate. */
@Component
@Order(1)
class Traffic implements DayWork {

    private static final Logger LOG = LoggerFactory.getLogger(Traffic.class);

    private final Settings settings;
    private final EstateStore estates;
    private final FileRoad road;
    private final Directory directory;
    private final DayLog log;

    Traffic(Settings settings, EstateStore estates, FileRoad road, Directory directory, DayLog log) {
        this.settings = settings;
        this.estates = estates;
        this.road = road;
        this.directory = directory;
        this.log = log;
    }

    @Override
    public void of(LocalDate day) {
        if (settings.demo() && settings.traffic()) {
            estates.load()
                    .shares()
                    .values()
                    .forEach(share -> log.once(day, "traffic of " + share.name(), () -> save(share, day)));
        }
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
