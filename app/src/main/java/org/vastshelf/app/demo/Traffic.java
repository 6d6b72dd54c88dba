package org.vastshelf.app.demo;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.desk.DeskClients;
import org.vastshelf.app.desk.DeskService;
import org.vastshelf.app.look.DayWork;
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
    private final DeskService desk;
    private final Directory directory;
    private final TransactionTemplate transaction;

    Traffic(
            Settings settings,
            EstateStore estates,
            DeskService desk,
            Directory directory,
            TransactionTemplate transaction) {
        this.settings = settings;
        this.estates = estates;
        this.desk = desk;
        this.directory = directory;
        this.transaction = transaction;
    }

    @Override
    public void of(LocalDate day) {
        if (settings.demo() && settings.traffic()) {
            transaction.executeWithoutResult(
                    t -> estates.load().shares().values().forEach(share -> save(share, day)));
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
                            DeskClients.of(share, person.uid()));
                    boolean allowed = desk.perform(write, save.at()).verdict().allowed();
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
