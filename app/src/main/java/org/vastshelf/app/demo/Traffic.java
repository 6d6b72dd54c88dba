package org.vastshelf.app.demo;

import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.TogetherWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.road.Delivery;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Perusal;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.road.TreeRoad;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.life.Act;
import org.vastshelf.standins.life.Crew;
import org.vastshelf.standins.life.Days;
import org.vastshelf.standins.life.Rhythm;
import org.vastshelf.standins.life.Staffer;

/** The demo's people at work: what they do takes the same road as anybody's, through the gate. */
@Component
class Traffic implements TogetherWork {

    private static final Logger LOG = LoggerFactory.getLogger(Traffic.class);
    /** What saving one file takes is the unit; whatever is saved in a share on a day takes so many beside. */
    private static final int SHARE = 50;
    /** What each folder takes into which something is saved. */
    private static final int FOLDER = 4;

    private static final int COME_BACK = 80;
    private static final int REMOVED = 180;
    /** What instruments remove was saved on so many days. */
    private static final int DAYS_REMOVED = 8;

    private static final Bytes EDITED = Bytes.of(4_096);

    private final Settings settings;
    private final EstateStore estates;
    private final FileRoad road;
    private final TreeRoad trees;
    private final Delivery delivery;
    private final Perusal perusal;
    private final HabitStore habits;
    private final Directory directory;
    private final ShelfClock clock;
    private final Days days = new Days();
    private volatile @Nullable Known known;
    private @Nullable LocalDate last;
    private long passing;
    private long left;

    Traffic(
            Settings settings,
            EstateStore estates,
            FileRoad road,
            TreeRoad trees,
            Delivery delivery,
            Perusal perusal,
            HabitStore habits,
            Directory directory,
            ShelfClock clock) {
        this.settings = settings;
        this.estates = estates;
        this.road = road;
        this.trees = trees;
        this.delivery = delivery;
        this.perusal = perusal;
        this.habits = habits;
        this.directory = directory;
        this.clock = clock;
    }

    private record Known(List<Person> people, Crew crew) {}

    @Override
    public DueKind kind() {
        return DueKind.TRAFFIC;
    }

    @Override
    public boolean isWanted() {
        return settings.demo() && settings.traffic();
    }

    /** Two halves, by how much is saved in the shares of a volume: shares of one wait for each other. */
    @Override
    public List<List<String>> apart(List<String> names, Instant midnight) {
        LocalDate day = dayBefore(midnight);
        Map<String, Share> there = estates.load().shares();
        Crew crew = crew(directory.people());
        Map<String, List<String>> byVolume = names.stream()
                .collect(Collectors.groupingBy(
                        name -> there.containsKey(name) ? there.get(name).volume() : "",
                        TreeMap::new,
                        Collectors.toList()));
        return Halves.of(
                        List.copyOf(byVolume.values()),
                        some -> some.stream()
                                .mapToInt(name -> weight(name, day, crew))
                                .sum())
                .stream()
                .map(half -> half.stream().flatMap(List::stream).sorted().toList())
                .toList();
    }

    private int weight(String share, LocalDate day, Crew crew) {
        List<Act> saves = days.saves(share, day, crew);
        long folders = saves.stream().map(Traffic::folder).distinct().count();
        int back = days.returns(share, day, crew).stream()
                .mapToInt(act -> switch (act.kind()) {
                    case READ -> 0;
                    case REMOVE_FOLDER -> REMOVED + DAYS_REMOVED * saves.size();
                    default -> COME_BACK;
                })
                .sum();
        return 1 + saves.size() + (int) folders * FOLDER + back + (saves.isEmpty() ? 0 : SHARE);
    }

    private static String folder(Act act) {
        return act.path().substring(0, act.path().lastIndexOf('/'));
    }

    private static LocalDate dayBefore(Instant midnight) {
        return LocalDate.ofInstant(midnight, ShelfClock.ZONE).minusDays(1);
    }

    @Override
    public void act(List<String> names, Instant midnight) {
        LocalDate day = dayBefore(midnight);
        Map<String, Share> there = estates.load().shares();
        List<Share> shares =
                names.stream().filter(there::containsKey).map(there::get).toList();
        Crew crew = crew(directory.people());
        delivery.deliver(shares.stream().collect(Collectors.toMap(Share::name, share -> saved(share, day, crew))));
        Map<Share, List<Act>> acts = new LinkedHashMap<>();
        shares.forEach(share -> acts.put(share, days.returns(share.name(), day, crew)));
        perusal.read(reads(acts, day, crew));
        acts.forEach((share, some) -> some.stream().filter(act -> !isRead(act)).forEach(act -> comeBack(share, act)));
    }

    private List<Perusal.Item> reads(Map<Share, List<Act>> acts, LocalDate day, Crew crew) {
        Rhythm.Told told = told(day);
        if (told.isNothing()) {
            return List.of();
        }
        List<Perusal.Item> reads = new ArrayList<>();
        acts.forEach((share, some) -> Stream.concat(
                        some.stream().filter(Traffic::isRead), days.reads(share.name(), day, crew, told).stream())
                .filter(act -> isThere(act, some))
                .map(act -> Perusal.Item.read(act.person(), share.name(), new FilePath(act.path()), act.at()))
                .forEach(reads::add));
        Set<String> shares = acts.keySet().stream().map(Share::name).collect(Collectors.toSet());
        habits.like(day, told, crew.people().stream().map(Staffer::uid).toList()).stream()
                .filter(item -> shares.contains(item.share()))
                .forEach(reads::add);
        reads.sort(Comparator.comparing(Perusal.Item::at));
        return reads;
    }

    /** What is told of a day, by over how many days the clock was moved at once, of which it is one. */
    private synchronized Rhythm.Told told(LocalDate day) {
        long ago = ChronoUnit.DAYS.between(day, LocalDate.ofInstant(clock.now(), ShelfClock.ZONE));
        if (!day.equals(last)) {
            passing = ago >= left ? ago : passing;
            left = ago;
            last = day;
        }
        return Rhythm.told(day, passing, ago);
    }

    private static boolean isRead(Act act) {
        return act.kind() == FileOperation.Kind.READ;
    }

    /** Nobody reads what somebody took away on the same day. */
    private static boolean isThere(Act read, List<Act> acts) {
        return acts.stream()
                .filter(act -> act.kind() == FileOperation.Kind.MOVE || act.kind() == FileOperation.Kind.DELETE)
                .noneMatch(act -> act.path().equals(read.path()) && act.at().isBefore(read.at()));
    }

    private List<Delivery.Item> saved(Share share, LocalDate day, Crew crew) {
        return days.saves(share.name(), day, crew).stream()
                .map(act -> new Delivery.Item(act.person(), new FilePath(act.path()), act.contents(), act.at()))
                .toList();
    }

    /** The crew, made anew when the directory was read anew. */
    private Crew crew(List<Person> people) {
        Known last = known;
        if (last == null || last.people != people) {
            last = new Known(people, Crew.of(people));
            known = last;
        }
        return last.crew;
    }

    private void comeBack(Share share, Act act) {
        TreeRoad.At at = new TreeRoad.At(share.name(), new FilePath(act.path()));
        try {
            switch (act.kind()) {
                case MOVE -> trees.move(act.person(), at, new FilePath(act.to()), act.at());
                case COPY ->
                    trees.copy(act.person(), at, new TreeRoad.At(share.name(), new FilePath(act.to())), act.at());
                case REMOVE_FOLDER -> trees.removeFolder(act.person(), at, act.at());
                case EDIT -> road.edit(operation(share, act, EDITED), OptionalLong.empty(), act.at());
                default -> road.perform(operation(share, act, Bytes.ZERO), act.at());
            }
        } catch (NotThere | Taken gone) {
            LOG.debug("{} found nothing to come back to: {}", act.person(), gone.getMessage());
        }
    }

    private static FileOperation operation(Share share, Act act, Bytes bytes) {
        return new FileOperation(
                act.kind(),
                act.person(),
                share.name(),
                new FilePath(act.path()),
                bytes,
                Workstations.of(share, act.person()));
    }
}
