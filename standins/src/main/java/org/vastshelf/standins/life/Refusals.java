package org.vastshelf.standins.life;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.FileOperation.Protocol;
import org.vastshelf.core.gate.Gate;
import org.vastshelf.core.gate.GateView;
import org.vastshelf.core.gate.Verdict;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.unit.Bytes;

/** Tries that the gate refused in the last month, in its own words. */
final class Refusals {

    private static final int TRIES = 420;
    private static final Bytes ROOM = Bytes.tib(1);

    private final Estate estate;
    private final Crew crew;
    private final Map<String, ShareLife> shares;
    private final Random random;

    private Refusals(Estate estate, Crew crew, Map<String, ShareLife> shares, Random random) {
        this.estate = estate;
        this.crew = crew;
        this.shares = shares;
        this.random = random;
    }

    static List<Deed> of(Estate estate, Crew crew, Map<String, ShareLife> shares, Random random, long end) {
        Refusals refusals = new Refusals(estate, crew, shares, random);
        List<Deed> deeds = new ArrayList<>();
        while (deeds.size() < TRIES && shares.size() > 1) {
            LocalDate day = Hours.workday(Ages.begin().plusDays(1 + random.nextInt(Ages.MONTH - 3)));
            refusals.one(day).filter(deed -> deed.micros() / 1_000_000 < end).ifPresent(deeds::add);
        }
        return deeds;
    }

    private Optional<Deed> one(LocalDate day) {
        return switch (random.nextInt(4)) {
            case 0 -> {
                Staffer full = crew.named("suki", "education-film");
                yield asked(
                        day,
                        full,
                        "homes",
                        Kind.WRITE,
                        "/" + full.uid() + "/own reel " + day + ".mp4",
                        Sizes.CLIP.draw(random));
            }
            case 1 -> {
                Staffer who = Crew.one(random, crew.people());
                Staffer whose = Crew.one(random, crew.people());
                yield asked(day, who, "homes", Kind.LIST, "/" + whose.uid(), 0);
            }
            case 2 -> {
                LivingFile file = any("sequences");
                yield asked(day, Crew.one(random, crew.people()), "sequences", Kind.READ, file.path(), 0);
            }
            default -> {
                LivingFile file = any("herbarium");
                yield asked(
                        day, Crew.one(random, crew.of("interns")), "herbarium", Kind.WRITE, file.path(), file.bytes());
            }
        };
    }

    private LivingFile any(String share) {
        return Crew.one(random, shares.get(share).files());
    }

    /** Empty where the gate would have let it pass. */
    private Optional<Deed> asked(LocalDate day, Staffer who, String name, Kind kind, String path, long bytes) {
        Share share = estate.shares().get(name);
        Volume volume = estate.volumes().get(share.volume());
        Pool pool = estate.pools().get(volume.pool());
        long at = Hours.moment(random, day, who);
        FilePath place = new FilePath(path);
        FileOperation operation = new FileOperation(
                kind,
                who.uid(),
                name,
                place,
                Bytes.of(bytes),
                new FileOperation.Client("10.20.0.1", share.smb() ? Protocol.SMB : Protocol.NFS));
        GateView view = new GateView(
                new GateView.Reach(share, estate.servers().get(pool.server()), pool.name(), false),
                new GateView.Access(share, crew.person(who)),
                GateView.Limits.of(accounts(name, place)),
                new GateView.Space(volume, ROOM, Optional.empty()));
        Verdict verdict = Gate.decide(operation, view, Instant.ofEpochSecond(at));
        return verdict.allowed()
                ? Optional.empty()
                : Optional.of(new Deed(
                        at * 1_000_000 + random.nextInt(1_000_000),
                        who.uid(),
                        name,
                        kind,
                        path,
                        "",
                        bytes,
                        verdict.reason()));
    }

    /** The one account that is full, where it counts. */
    private List<Account> accounts(String share, FilePath path) {
        return estate.limits().values().stream()
                .filter(rule -> rule.share().equals(share)
                        && rule.eachChild()
                        && rule.stopAt().isPresent())
                .flatMap(rule -> rule.accountFor(path).stream()
                        .map(holder -> new Account(
                                rule,
                                holder,
                                "",
                                rule.stopAt().orElseThrow().minus(Bytes.of(4_096)),
                                AccountState.FRESH)))
                .toList();
    }
}
