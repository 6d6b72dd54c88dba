package org.vastshelf.app.saving;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.road.TakingIn;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.SavingRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.unit.Bytes;

/**
 * Lets a volume's files be taken in, some at a time: as long as reading them takes the file server at the rule's rate, less
 * what its clients leave of it. Each part is one transaction, so that a node that dies leaves nothing half done.
 */
@Component
class CommonDue implements DueWork {

    private static final int MOST_FILES = 1_000;
    /** Seconds at the rule's rate after which it looks up. */
    private static final int PART = 60;

    private static final int WHOLE = 100;

    private final CommonRunStore runs;
    private final TakingIn takingIn;
    private final EstateStore estates;
    private final Map<String, Duration> busy = new ConcurrentHashMap<>();

    CommonDue(CommonRunStore runs, TakingIn takingIn, EstateStore estates) {
        this.runs = runs;
        this.takingIn = takingIn;
        this.estates = estates;
    }

    @Override
    public DueKind kind() {
        return DueKind.of(Kinds.SAVING);
    }

    @Override
    public void act(String volume, Instant at) {
        busy.remove(volume);
        Estate estate = estates.held().estate();
        estate.find(Kinds.SAVING, volume).ifPresent(rule -> part(estate, rule, at));
    }

    private void part(Estate estate, SavingRule rule, Instant at) {
        String volume = rule.volume();
        CommonRun run = runs.running(volume).orElseGet(() -> runs.begin(volume, at));
        if (at.isAfter(run.begun().plus(Duration.ofHours(rule.hours())))) {
            runs.end(volume, CommonRun.State.DONE, "its hours are over; the next run goes on", at);
            return;
        }
        List<String> shares = estate.sharesOn(volume)
                .map(Share::name)
                .filter(name -> name.compareTo(run.share()) >= 0)
                .sorted()
                .toList();
        if (shares.isEmpty()) {
            runs.end(volume, CommonRun.State.DONE, "", at);
            return;
        }
        String share = shares.getFirst();
        TakingIn.Place from = share.equals(run.share()) ? run.place() : TakingIn.Place.START;
        long rate = rate(estate, rule);
        TakingIn.Done done = rule.aim() == SavingRule.Aim.NOTHING
                ? takingIn.giveBack(share, from, MOST_FILES, rate * PART)
                : takingIn.take(rule, share, from, MOST_FILES, rate * PART, at);
        if (done.lacking() > 0) {
            runs.end(volume, CommonRun.State.STOPPED, lacking(done.lacking()), at);
        } else if (done.last().isPresent()) {
            runs.goOn(run.id(), done, share, done.last().get());
        } else if (shares.size() > 1) {
            runs.goOn(run.id(), done, shares.get(1), TakingIn.Place.START);
        } else {
            runs.goOn(run.id(), done, share, from);
            runs.end(volume, CommonRun.State.DONE, "", at);
            return;
        }
        busy.put(volume, Duration.ofSeconds(Math.max(1, Math.ceilDiv(done.bytes(), rate))));
    }

    private static String lacking(long bytes) {
        return "there is no room for blocks of their own; " + bytes + " bytes more are needed for the next files";
    }

    /** Bytes a second: the rule's, less what clients ask of the server. */
    private static long rate(Estate estate, SavingRule rule) {
        FileServer server = estate.servers()
                .get(estate.pools()
                        .get(estate.volumes().get(rule.volume()).pool())
                        .server());
        int load = server == null ? 0 : server.loadPercent();
        return Math.max(1, rule.mibps() * Bytes.MIB * (WHOLE - load) / WHOLE);
    }

    @Override
    public Optional<Instant> again(String volume, Instant at, Supplier<Optional<Instant>> byAgenda) {
        Duration spent = busy.remove(volume);
        return spent != null && runs.running(volume).isPresent() ? Optional.of(at.plus(spent)) : byAgenda.get();
    }
}
