package org.vastshelf.core.gate;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.vastshelf.core.estate.LegalTag;
import org.vastshelf.core.gate.GateView.Met;
import org.vastshelf.core.gate.Verdict.Stage;

/** Whether something that may not be changed yet, or is under a legal hold, would change or go. */
final class RetentionCheck implements Checkpoint {

    private static final DateTimeFormatter MOMENT =
            DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm", Locale.ROOT).withZone(ZoneOffset.UTC);

    @Override
    public Stage stage() {
        return Stage.RETENTION;
    }

    @Override
    public boolean passes(FileOperation operation, GateView view, Instant now) {
        if (!operation.kind().touchesWhatIsThere()) {
            return true;
        }
        GateView.Retention retention = view.retention();
        return retention.tags().isEmpty() && held(retention, now).isEmpty();
    }

    private static Optional<Met> held(GateView.Retention retention, Instant now) {
        List<Met> met = retention.met();
        for (int i = 0; i < met.size(); i++) {
            if (met.get(i).isHeld(now, retention.counted())) {
                return Optional.of(met.get(i));
            }
        }
        return Optional.empty();
    }

    @Override
    public void tell(FileOperation operation, GateView view, Instant now, Trace trace) {
        GateView.Retention retention = view.retention();
        if (!operation.kind().touchesWhatIsThere()) {
            trace.skip(Stage.RETENTION, "Retention", "not asked: nothing that is there changes");
        } else if (!retention.tags().isEmpty()) {
            tag(retention.tags().getFirst(), trace);
        } else {
            held(retention, now).ifPresentOrElse(met -> refuse(met, trace), () -> notHeld(retention, now, trace));
        }
    }

    private static void tag(LegalTag tag, Trace trace) {
        trace.refuse(
                Stage.RETENTION,
                "Legal hold '" + tag.tag() + "'",
                "keeps " + tag.path() + " as it is since " + MOMENT.format(tag.at()),
                "ask an administrator whether it can be taken off");
    }

    private static void refuse(Met met, Trace trace) {
        trace.refuse(
                Stage.RETENTION,
                rule(met),
                "holds " + met.file() + " until " + MOMENT.format(met.freeAt()),
                "save under another name; it can be changed after that");
    }

    private static String rule(Met met) {
        return "Retention rule \"" + met.rule().title() + "\"" + (met.rule().isSealed() ? ", sealed," : "");
    }

    private static void notHeld(GateView.Retention retention, Instant now, Trace trace) {
        if (retention.met().isEmpty()) {
            trace.skip(Stage.RETENTION, "Retention", "no rule is about what is there");
        }
        for (Met met : retention.met()) {
            boolean early = now.isBefore(met.heldFrom());
            trace.note(
                    Stage.RETENTION,
                    rule(met),
                    early
                            ? "holds " + met.file() + " only from " + MOMENT.format(met.heldFrom())
                            : "lets go of " + met.file() + " since " + MOMENT.format(met.freeAt()));
        }
    }
}
