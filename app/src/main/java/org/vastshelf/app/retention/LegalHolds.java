package org.vastshelf.app.retention;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.config.Settings.HoldRelease;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LegalTag;

/** Puts legal tags on files and folders, and takes them off when two people agree. */
@Service
public class LegalHolds {

    private final HoldingStore store;
    private final EstateStore estates;
    private final Settings settings;
    private final ShelfClock clock;
    private final Deeds deeds;
    private final Transactions transactions;

    LegalHolds(
            HoldingStore store,
            EstateStore estates,
            Settings settings,
            ShelfClock clock,
            Deeds deeds,
            Transactions transactions) {
        this.store = store;
        this.estates = estates;
        this.settings = settings;
        this.clock = clock;
        this.deeds = deeds;
        this.transactions = transactions;
    }

    public List<LegalTag> all() {
        return List.copyOf(estates.load().all(Kinds.LEGAL_TAG).values());
    }

    /** @throws NotFound when there is none */
    public LegalTag tag(String key) {
        return tag(estates.load(), key);
    }

    private static LegalTag tag(Estate estate, String key) {
        return estate.find(Kinds.LEGAL_TAG, key).orElseThrow(() -> new NotFound("legal tag", key));
    }

    /** Files that a tag keeps. */
    public Holding.Sum kept(LegalTag tag) {
        return store.sum(tag.share(), tag.path());
    }

    /**
     * Puts a tag on a file or a folder.
     *
     * @throws AtField when there is nothing at the path, or the tag is on it already
     */
    public LegalTag put(String who, String share, FilePath path, String tag, String why) {
        LegalTag made =
                AtField.read("tag", () -> new LegalTag(share, path, tag, who, clock.instant(), why, Optional.empty()));
        change(who, made.key(), "legal tag '" + tag + "' put on: " + why, estate -> {
            if (!estate.shares().containsKey(share)) {
                throw new AtField("share", "There is no share '" + share + "'");
            }
            if (!store.isThere(share, path)) {
                throw new AtField("path", "There is nothing at '" + path + "' on share " + share);
            }
            if (estate.find(Kinds.LEGAL_TAG, made.key()).isPresent()) {
                throw new AtField("tag", "tag is '" + tag + "', which is on '" + path + "' already");
            }
            if (estate.all(Kinds.LEGAL_TAG).size() >= LegalTag.MOST) {
                throw new IllegalArgumentException("there are " + LegalTag.MOST
                        + " legal tags, must be at most so many; put one on the folder instead");
            }
            return estate.with(Kinds.LEGAL_TAG, made);
        });
        return made;
    }

    /** Asks to take a tag off; the files stay held. */
    public void ask(Someone who, String key) {
        change(who.getName(), key, "asked to take the legal tag off", estate -> {
            LegalTag tag = tag(estate, key);
            tag.release().ifPresent(asked -> {
                throw new IllegalArgumentException(asked.by() + " has asked for that already");
            });
            return estate.with(Kinds.LEGAL_TAG, tag.released(asked(who)));
        });
    }

    private LegalTag.Release asked(Someone who) {
        return new LegalTag.Release(who.getName(), who.role().title(), clock.instant());
    }

    /** Leaves a tag on that somebody asked to take off. */
    public void keep(Someone who, String key) {
        change(who.getName(), key, "the legal tag stays on", estate -> {
            LegalTag tag = tag(estate, key);
            if (tag.release().isEmpty()) {
                throw new IllegalArgumentException("nobody asked to take it off");
            }
            return estate.with(Kinds.LEGAL_TAG, tag.kept());
        });
    }

    /**
     * Takes a tag off.
     *
     * @throws IllegalArgumentException when somebody else has to agree first
     */
    public void takeOff(Someone who, String key) {
        transactions.run(() -> {
            if (settings.holdRelease() == HoldRelease.ONE && tag(key).release().isEmpty()) {
                ask(who, key);
            }
            change(who.getName(), key, "legal tag taken off; " + free(key), estate -> {
                LegalTag tag = tag(estate, key);
                requireSecond(tag, who);
                return estate.without(Kinds.LEGAL_TAG, key);
            });
        });
    }

    private String free(String key) {
        Holding.Sum sum = kept(tag(key));
        return sum.files() + " files of " + sum.bytes() + " bytes were kept by it";
    }

    private void requireSecond(LegalTag tag, Someone who) {
        LegalTag.Release asked = tag.release()
                .orElseThrow(() -> new IllegalArgumentException(
                        "nobody asked to take it off yet; ask for it, then somebody else can take it off"));
        if (settings.holdRelease() == HoldRelease.ONE) {
            return;
        }
        if (asked.by().equals(who.getName())) {
            throw new IllegalArgumentException("you asked for it yourself; somebody else has to take it off");
        }
        if (settings.holdRelease() == HoldRelease.BOTH_ROLES
                && asked.role().equals(who.role().title())) {
            throw new IllegalArgumentException(asked.by() + ", who asked for it, is " + asked.role()
                    + " as you are; it takes an operator and an administrator");
        }
    }

    private void change(String who, String key, String deed, UnaryOperator<Estate> change) {
        transactions.run(() -> {
            EstateAnswer answer = estates.change((estate, held) -> new EstateAnswer.Changed(change.apply(estate)));
            if (answer instanceof EstateAnswer.Refused refused) {
                throw new IllegalArgumentException(refused.because());
            }
            deeds.done(who, Deeds.Kind.LEGAL_HOLD, key, deed);
        });
    }
}
