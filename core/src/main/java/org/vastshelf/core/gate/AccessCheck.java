package org.vastshelf.core.gate;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.AccessRule.Level;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.Verdict.Stage;

/**
 * Whether the person may do this here: some access rule has to let them into the share, and own folders belong to the
 * person of their name alone.
 */
final class AccessCheck implements Checkpoint {

    @Override
    public Stage stage() {
        return Stage.ACCESS;
    }

    @Override
    public boolean passes(FileOperation operation, GateView view, Instant now) {
        if (operation.kind().isOfAdministrators()) {
            return true;
        }
        Share share = view.access().share();
        Person person = view.access().person();
        AccessRule best = best(share, person);
        if (best == null) {
            return false;
        }
        return !takesOwnFolderAway(operation, share)
                && passes(operation, share, person, best, operation.path())
                && passes(operation, share, person, best, operation.place());
    }

    private static boolean passes(FileOperation operation, Share share, Person person, AccessRule best, FilePath path) {
        return switch (share.ownership(path, operation.kind().isOfFolder(), person.uid())) {
            case OWN -> true;
            case OTHERS -> false;
            case COMMON -> best.level().compareTo(needed(operation)) >= 0;
        };
    }

    /** Whether it would leave somebody without the folder that is theirs by its name. */
    private static boolean takesOwnFolderAway(FileOperation operation, Share share) {
        return (operation.kind() == Kind.MOVE_FOLDER || operation.kind() == Kind.REMOVE_FOLDER)
                && share.ownFolders().filter(operation.path().parent()::equals).isPresent();
    }

    private static Level needed(FileOperation operation) {
        return operation.kind().needsWrite() ? Level.WRITE : Level.READ;
    }

    /** The rule that lets the person do most. */
    static @Nullable AccessRule best(Share share, Person person) {
        AccessRule best = null;
        List<AccessRule> rules = share.access();
        for (int i = 0; i < rules.size(); i++) {
            AccessRule rule = rules.get(i);
            if (rule.appliesTo(person) && (best == null || rule.level().compareTo(best.level()) > 0)) {
                best = rule;
            }
        }
        return best;
    }

    @Override
    public void tell(FileOperation operation, GateView view, Instant now, Trace trace) {
        Share share = view.access().share();
        Person person = view.access().person();
        if (operation.kind().isOfAdministrators()) {
            trace.note(Stage.ACCESS, "Bringing back", "is for who runs the estate, on any share");
            return;
        }
        AccessRule best = best(share, person);
        if (best == null) {
            trace.refuse(
                    Stage.ACCESS,
                    "Access to " + share.name(),
                    "has no rule for " + person.name(),
                    "ask the share's keeper");
            return;
        }
        String own = "Own folders of " + share.name();
        if (takesOwnFolderAway(operation, share)) {
            trace.refuse(Stage.ACCESS, own, "keep their names and are not removed by clients", "ask an administrator");
            return;
        }
        // Of a move the place that refuses is told, or where it goes.
        boolean leaves = passes(operation, share, person, best, operation.path());
        FilePath path = leaves ? operation.place() : operation.path();
        switch (share.ownership(path, operation.kind().isOfFolder(), person.uid())) {
            case OWN -> trace.note(Stage.ACCESS, own, "give this one to " + person.name());
            case OTHERS ->
                trace.refuse(
                        Stage.ACCESS,
                        own,
                        "let nobody but the person of its name into this folder",
                        "use a folder of your own, or ask that person");
            case COMMON -> common(operation, best, person, trace);
        }
    }

    private static void common(FileOperation operation, AccessRule best, Person person, Trace trace) {
        String rule = "Access rule \"" + best + "\"";
        if (best.level().compareTo(needed(operation)) >= 0) {
            trace.note(Stage.ACCESS, rule, "lets " + person.name() + " do this");
        } else {
            trace.refuse(Stage.ACCESS, rule, "does not let " + person.name() + " write", "ask the share's keeper");
        }
    }
}
