package org.vastshelf.core.change;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.change.Check.Verdict;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.invariant.Invariants;
import org.vastshelf.core.invariant.Violation;
import org.vastshelf.core.unit.UnitSystem;

/** Collects steps and findings while a draft is planned. */
final class PlanDraft {

    private final Estate before;
    private final Usage usage;
    private final UnitSystem units;
    private Estate after;
    private final List<Step> steps = new ArrayList<>();
    private final List<Check> checks = new ArrayList<>();
    private final List<String> permanent = new ArrayList<>();

    PlanDraft(Estate estate, Usage usage, UnitSystem units) {
        this.units = units;
        this.before = estate;
        this.usage = usage;
        this.after = estate;
    }

    Estate estate() {
        return after;
    }

    /** In which its sentences give sizes. */
    UnitSystem units() {
        return units;
    }

    /** Adds a step; one that would leave the estate in a state that must not be is refused with what is wrong. */
    void step(Step step) {
        Estate next = step.apply(after);
        for (Violation violation : Invariants.brokenBy(after, next, usage)) {
            refuse("whole: " + violation.key(), step.title() + " is not possible: " + violation.text(), "");
        }
        steps.add(step);
        after = next;
    }

    /** The pool, or empty and a refusal when there is none. */
    Optional<Pool> pool(String name) {
        Pool pool = after.pools().get(name);
        if (pool == null) {
            refuse("pool " + name + ": name", "There is no pool '" + name + "'", "");
        }
        return Optional.ofNullable(pool);
    }

    /** The volume, or empty and a refusal when there is none. */
    Optional<Volume> volume(String name) {
        Volume volume = after.volumes().get(name);
        if (volume == null) {
            refuse("volume " + name + ": name", "There is no volume '" + name + "'", "");
        }
        return Optional.ofNullable(volume);
    }

    /** Drives that are free on the pool's server, or empty and a refusal for each that is not. */
    Optional<List<Drive>> freeDrives(String key, String server, List<String> drives) {
        int refused = checks.size();
        if (drives.isEmpty()) {
            refuse(key + "none", "No drive is chosen", "choose at least 1");
        }
        if (new HashSet<>(drives).size() < drives.size()) {
            refuse(key + "twice", "A drive is named twice", "name each drive once");
        }
        for (String name : drives) {
            Drive drive = after.drives().get(name);
            if (drive == null || !drive.server().equals(server)) {
                refuse(key + name, "There is no drive '" + shorten(name) + "' on " + server, "rescan");
            } else if (!drive.isFree() || after.poolOf(drive).isPresent()) {
                refuse(
                        key + name,
                        "Drive " + name + " is " + drive.state().title() + ", must be unclaimed",
                        "choose another drive");
            } else if (after.holdOf(name).isPresent()) {
                refuse(
                        key + name,
                        "Drive " + name + " is held by order "
                                + after.holdOf(name).get().order(),
                        "choose another drive, or take that order back");
            }
        }
        return checks.size() > refused ? Optional.empty() : Optional.of(after.drives(drives));
    }

    /** Asks to confirm the loss of what earlier owners left on drives, and says which of them ail. */
    void checkContents(String key, List<Drive> drives) {
        List<Drive> withData = drives.stream().filter(d -> d.held().isPresent()).toList();
        for (Drive drive : withData) {
            confirm(
                    key + "data " + drive.key(),
                    "Drive " + drive.key() + " holds " + drive.heldData() + "; it will be gone");
        }
        if (withData.isEmpty()) {
            fine(key + "data", "No data on the chosen drives");
        }
        for (Drive drive : drives) {
            drive.health()
                    .ailment()
                    .ifPresent(why -> watch(
                            key + "ails " + drive.key(), "Drive " + drive.key() + " ails: " + why, "leave it out"));
        }
    }

    private static String shorten(String text) {
        return text.length() <= 40 ? text : text.substring(0, 40) + "…";
    }

    void fine(String key, String text) {
        checks.add(Check.fine(key, text));
    }

    void watch(String key, String text, String remedy) {
        checks.add(new Check(Verdict.WATCH, key, text, remedy));
    }

    void confirm(String key, String text) {
        checks.add(new Check(Verdict.CONFIRM, key, text, ""));
    }

    /** Records a reason not to go on with a change. */
    void refuse(String key, String text, String remedy) {
        checks.add(Check.refuse(key, text, remedy));
    }

    void permanent(String text) {
        permanent.add(text);
    }

    Plan toPlan() {
        return new Plan(steps, checks, permanent, before, after);
    }
}
