package org.vastshelf.core.gate;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.PathTable;
import org.vastshelf.core.gate.Verdict.Stage;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/** Whether every account that the file counts for may grow by so much. All answer, so that each one in the way is seen. */
final class LimitCheck implements Checkpoint {

    @Override
    public Stage stage() {
        return Stage.LIMITS;
    }

    @Override
    public boolean passes(FileOperation operation, GateView view, Instant now) {
        if (!operation.kind().mayGrow()) {
            return true;
        }
        if (!operation.kind().saves()) {
            return view.space().arriving().bytes().entrySet().stream()
                    .allMatch(e -> e.getValue() <= 0 || e.getKey().allows(e.getValue(), now));
        }
        FilePath path = operation.path();
        for (int length = PathTable.ROOT; length > 0; length = PathTable.next(path, length)) {
            List<Account> here = view.limits().accounts().at(path, length);
            if (here != null && !allAllow(here, operation, view.space(), now)) {
                return false;
            }
        }
        return true;
    }

    private static boolean allAllow(
            List<Account> accounts, FileOperation operation, GateView.Space space, Instant now) {
        for (int i = 0; i < accounts.size(); i++) {
            long growth = space.growth(operation, accounts.get(i));
            if (growth > 0 && !accounts.get(i).allows(growth, now)) {
                return false;
            }
        }
        return true;
    }

    @Override
    public void tell(FileOperation operation, GateView view, Instant now, Trace trace) {
        if (!operation.kind().mayGrow()) {
            trace.skip(Stage.LIMITS, "Limits", "nothing grows");
            return;
        }
        // What arrives may reach accounts of folders within it.
        List<Account> touched = operation.kind().saves()
                ? view.limits().accounts().along(operation.path()).stream()
                        .flatMap(List::stream)
                        .toList()
                : view.space().arriving().bytes().entrySet().stream()
                        .filter(e -> e.getValue() >= 0)
                        .map(Map.Entry::getKey)
                        .toList();
        if (touched.isEmpty()) {
            trace.skip(Stage.LIMITS, "Limits", "no rule here");
        }
        for (Account account : touched) {
            Bytes growth = Bytes.of(view.space().growth(operation, account));
            String name = "Limit of " + account.place() + " ("
                    + account.rule().stance().title() + ")";
            if (growth.isZero()) {
                trace.skip(Stage.LIMITS, name, "nothing grows");
                continue;
            }
            switch (account.grow(growth, now, trace.units())) {
                case Account.Allows a -> trace.note(Stage.LIMITS, name, a.said());
                case Account.Refuses r -> trace.refuse(Stage.LIMITS, name, r.said(), r.remedy());
            }
        }
    }
}
