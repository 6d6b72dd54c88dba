package org.vastshelf.core.gate;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.AccessRule.Level;
import org.vastshelf.core.estate.ExportRule;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.FileOperation.Protocol;
import org.vastshelf.core.gate.Verdict.Line;
import org.vastshelf.core.gate.Verdict.Outcome;
import org.vastshelf.core.gate.Verdict.Stage;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/**
 * Decides on file operations; nothing else does. The gates are passed in the order of {@link Stage}; the first that
 * refuses ends the way, except among limits, where all accounts answer so that the person sees every one in the way.
 */
public final class Gate {

    private final FileOperation operation;
    private final GateView view;
    private final Instant now;
    private final List<Line> trace = new ArrayList<>();

    private Gate(FileOperation operation, GateView view, Instant now) {
        this.operation = operation;
        this.view = view;
        this.now = now;
    }

    public static Verdict decide(FileOperation operation, GateView view, Instant now) {
        return new Gate(operation, view, now).pass();
    }

    private Verdict pass() {
        boolean allowed = reach() && access() && retention() && content() && limits() && space();
        if (allowed) {
            note(Stage.APPLY, operation.kind().name(), "done");
        }
        return new Verdict(allowed, trace);
    }

    private boolean reach() {
        String server = "File server " + view.server().name();
        if (!view.server().isReachable()) {
            return refuse(Stage.REACH, server, "has no data address", "ask an administrator");
        }
        if (view.server().dark()) {
            return refuse(Stage.REACH, server, "is without power", "wait until it is back");
        }
        if (view.poolLost()) {
            return refuse(
                    Stage.REACH,
                    "Pool " + view.volume().pool(),
                    "has lost data; nothing on it is served",
                    "bring it back from a copy elsewhere");
        }
        note(Stage.REACH, server, "serves at " + view.server().address());
        return operation.client().protocol() == Protocol.SMB ? reachBySmb() : reachByNfs();
    }

    private boolean reachBySmb() {
        String share = "Share " + view.share().name();
        return view.share().smb()
                ? note(Stage.REACH, share, "is served over SMB")
                : refuse(Stage.REACH, share, "is not served over SMB", "use NFS");
    }

    private boolean reachByNfs() {
        String share = "Share " + view.share().name();
        if (!view.share().nfs()) {
            return refuse(Stage.REACH, share, "is not served over NFS", "use SMB");
        }
        String client = operation.client().address();
        Optional<ExportRule> rule = view.share().exports().stream()
                .filter(r -> r.clients().contains(client))
                .max(Comparator.comparingInt(r -> r.clients().prefix()));
        if (rule.isEmpty()) {
            return refuse(Stage.REACH, share, "has no export rule for " + client, "ask for one for this client");
        }
        String name = "Export rule " + rule.get().clients().text();
        if (operation.kind().needsWrite() && !rule.get().mayWrite()) {
            return refuse(Stage.REACH, name, "lets " + client + " read only", "use a client that may write");
        }
        return note(Stage.REACH, name, "lets " + client + (rule.get().mayWrite() ? " read and write" : " read"));
    }

    private boolean access() {
        Level needed = operation.kind().needsWrite() ? Level.WRITE : Level.READ;
        String who = view.person().name();
        Optional<AccessRule> best = view.share().access().stream()
                .filter(rule -> rule.appliesTo(view.person()))
                .max(Comparator.comparing(AccessRule::level));
        if (best.isEmpty()) {
            return refuse(
                    Stage.ACCESS,
                    "Access to " + view.share().name(),
                    "has no rule for " + who,
                    "ask the share's keeper");
        }
        String rule = "Access rule \"" + best.get() + "\"";
        return best.get().level().compareTo(needed) >= 0
                ? note(Stage.ACCESS, rule, "lets " + who + " do this")
                : refuse(Stage.ACCESS, rule, "does not let " + who + " write", "ask the share's keeper");
    }

    private boolean retention() {
        return skip(Stage.RETENTION, "Retention", "no rule here");
    }

    private boolean content() {
        return skip(Stage.CONTENT, "Content", "no rule here");
    }

    private Bytes growth() {
        Bytes before = view.present().map(GateView.Present::bytes).orElse(Bytes.ZERO);
        return operation.kind() == Kind.WRITE ? operation.bytes().minusOrZero(before) : Bytes.ZERO;
    }

    private boolean limits() {
        if (growth().isZero()) {
            return skip(Stage.LIMITS, "Limits", "nothing grows");
        }
        if (view.accounts().isEmpty()) {
            return skip(Stage.LIMITS, "Limits", "no rule here");
        }
        boolean all = true;
        for (Account account : view.accounts()) {
            String name = "Limit of " + account.folder() + " ("
                    + account.rule().stance().title() + ")";
            all &= switch (account.grow(growth(), now)) {
                case Account.Allows a -> note(Stage.LIMITS, name, a.said());
                case Account.Refuses r -> refuse(Stage.LIMITS, name, r.said(), r.remedy());
            };
        }
        return all;
    }

    private boolean space() {
        if (operation.kind() != Kind.WRITE) {
            return skip(Stage.SPACE, "Space", "nothing is written");
        }
        Bytes before = view.present().map(GateView.Present::allocated).orElse(Bytes.ZERO);
        Bytes needed = view.volume().allocated(operation.bytes()).minusOrZero(before);
        String name = "Volume " + view.volume().name();
        String room = UnitSystem.BINARY.format(view.room());
        return needed.isMoreThan(view.room())
                ? refuse(
                        Stage.SPACE,
                        name,
                        "has room for " + room + ", this save needs " + UnitSystem.BINARY.format(needed),
                        "free space, or ask for the volume to grow")
                : note(Stage.SPACE, name, "has room for " + room);
    }

    private boolean note(Stage stage, String rule, String said) {
        trace.add(new Line(stage, Outcome.PASSES, rule, said, ""));
        return true;
    }

    private boolean skip(Stage stage, String rule, String why) {
        trace.add(new Line(stage, Outcome.NOT_ASKED, rule, why, ""));
        return true;
    }

    private boolean refuse(Stage stage, String rule, String said, String remedy) {
        trace.add(new Line(stage, Outcome.REFUSES, rule, said, remedy));
        return false;
    }
}
