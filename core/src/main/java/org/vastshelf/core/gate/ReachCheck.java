package org.vastshelf.core.gate;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.estate.ExportRule;
import org.vastshelf.core.gate.FileOperation.Protocol;
import org.vastshelf.core.gate.Verdict.Stage;

/** Whether the client gets to the share at all. */
final class ReachCheck implements Checkpoint {

    @Override
    public Stage stage() {
        return Stage.REACH;
    }

    @Override
    public boolean passes(FileOperation operation, GateView view, Instant now) {
        GateView.Reach reach = view.reach();
        if (!reach.server().isReachable() || reach.server().dark() || reach.poolLost() || halts(operation, reach)) {
            return false;
        }
        // The file server does it by itself, and no client reaches it for that.
        if (operation.kind().isOfAdministrators()) {
            return true;
        }
        if (operation.client().protocol() == Protocol.SMB) {
            return reach.share().smb();
        }
        ExportRule rule = reach.share().nfs() ? export(reach, operation) : null;
        return rule != null && (rule.mayWrite() || !operation.kind().needsWrite());
    }

    private static boolean halts(FileOperation operation, GateView.Reach reach) {
        return reach.halted().isPresent()
                && operation.kind().needsWrite()
                && !operation.kind().isOfAdministrators();
    }

    /** The narrowest export rule for the client. */
    private static @Nullable ExportRule export(GateView.Reach reach, FileOperation operation) {
        ExportRule best = null;
        List<ExportRule> rules = reach.share().exports();
        for (int i = 0; i < rules.size(); i++) {
            ExportRule rule = rules.get(i);
            if (rule.clients().contains(operation.client().address())
                    && (best == null || rule.clients().prefix() > best.clients().prefix())) {
                best = rule;
            }
        }
        return best;
    }

    @Override
    public void tell(FileOperation operation, GateView view, Instant now, Trace trace) {
        GateView.Reach reach = view.reach();
        String server = "File server " + reach.server().name();
        if (!reach.server().isReachable()) {
            trace.refuse(Stage.REACH, server, "has no data address", "ask an administrator");
        } else if (reach.server().dark()) {
            trace.refuse(Stage.REACH, server, "is without power", "wait until it is back");
        } else if (reach.poolLost()) {
            trace.refuse(
                    Stage.REACH,
                    "Pool " + reach.pool(),
                    "has lost data; nothing on it is served",
                    "bring it back from a copy elsewhere");
        } else if (halts(operation, reach)) {
            trace.refuse(
                    Stage.REACH,
                    "Pair of volume " + reach.share().volume(),
                    "refuses writes: " + reach.halted().orElseThrow(),
                    "wait until its copy answers again");
        } else {
            trace.note(Stage.REACH, server, "serves at " + reach.server().address());
            if (!operation.kind().isOfAdministrators()) {
                protocol(operation, reach, trace);
            }
        }
    }

    private static void protocol(FileOperation operation, GateView.Reach reach, Trace trace) {
        String share = "Share " + reach.share().name();
        boolean smb = operation.client().protocol() == Protocol.SMB;
        if (smb && reach.share().smb()) {
            trace.note(Stage.REACH, share, "is served over SMB");
        } else if (smb) {
            trace.refuse(Stage.REACH, share, "is not served over SMB", "use NFS");
        } else if (!reach.share().nfs()) {
            trace.refuse(Stage.REACH, share, "is not served over NFS", "use SMB");
        } else {
            exported(operation, reach, share, trace);
        }
    }

    private static void exported(FileOperation operation, GateView.Reach reach, String share, Trace trace) {
        String client = operation.client().address();
        ExportRule rule = export(reach, operation);
        if (rule == null) {
            trace.refuse(Stage.REACH, share, "has no export rule for " + client, "ask for one for this client");
            return;
        }
        String name = "Export rule " + rule.clients().text();
        if (operation.kind().needsWrite() && !rule.mayWrite()) {
            trace.refuse(Stage.REACH, name, "lets " + client + " read only", "use a client that may write");
        } else {
            trace.note(Stage.REACH, name, "lets " + client + (rule.mayWrite() ? " read and write" : " read"));
        }
    }
}
