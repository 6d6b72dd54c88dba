package org.vastshelf.app.orders;

import java.util.List;
import java.util.Optional;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/**
 * What the order drawer shows of a draft.
 *
 * @param change the estate before and after; empty where no byte of it moves
 * @param ready whether it can be carried out as it stands, by whoever looks
 * @param deeds what else this person can do with it
 */
public record DrawerView(
        long id,
        String state,
        String said,
        List<Line> lines,
        List<Checked> checks,
        List<Planned> steps,
        Optional<Change> change,
        List<String> permanent,
        boolean ready,
        List<Form> deeds) {

    private static final int BAR = 290;

    /**
     * A change.
     *
     * @param strikes whether this person may strike it, or restore it
     */
    public record Line(int position, String what, boolean struck, boolean strikes) {

        public String css() {
            return struck ? "struck" : "";
        }

        public boolean struckNext() {
            return !struck;
        }

        public String deed() {
            return struck ? "restore" : "strike";
        }
    }

    /**
     * A check of the plan.
     *
     * @param asks whether somebody has to confirm it
     * @param css and sign of the mark of one that does not ask
     */
    public record Checked(
            String key, boolean asks, boolean confirmed, String css, String sign, String text, String remedy) {}

    /** A step, and how long it is expected to take. */
    public record Planned(String what, String expected) {}

    /** The ledger of the estate, to one scale. */
    public record Change(String beforeSaid, LedgerPicture before, String afterSaid, LedgerPicture after) {}

    static DrawerView of(Figures fmt, Order order, Plan plan, Usage held, Someone me) {
        boolean mine = order.author().equals(me.getName());
        boolean inWork = order.state() == OrderState.DRAFT;
        boolean whole = !plan.isRefused()
                && plan.unconfirmed(order.confirmed()).isEmpty()
                && !plan.steps().isEmpty();
        return new DrawerView(
                order.id(),
                order.state().title(),
                Counted.of(order.changes().size(), "change") + (mine ? "" : " by " + order.author())
                        + ", nothing has been done yet",
                order.lines().stream()
                        .map(l -> new Line(
                                l.position(),
                                l.change().title(fmt.units()),
                                l.struck(),
                                me.isAdministrator() && inWork))
                        .toList(),
                plan.checks().stream().map(c -> checked(order, c)).toList(),
                plan.steps().stream().map(s -> planned(fmt, s)).toList(),
                change(fmt, plan, held),
                plan.permanent(),
                whole && (mine || !inWork),
                me.isAdministrator() ? deeds(order) : List.of());
    }

    private static Checked checked(Order order, Check check) {
        String remedy = check.remedy().isEmpty() ? "" : "; " + check.remedy();
        boolean asks = check.verdict() == Check.Verdict.CONFIRM;
        return new Checked(
                check.key(),
                asks,
                order.confirmed().contains(check.key()),
                switch (check.verdict()) {
                    case FINE -> "fine";
                    case WATCH -> "watch";
                    case CONFIRM -> "act";
                    case REFUSE -> "failed";
                },
                switch (check.verdict()) {
                    case FINE -> "●";
                    case WATCH -> "▲";
                    case CONFIRM -> "■ confirm";
                    case REFUSE -> "✕";
                },
                check.text(),
                asks ? "" : remedy);
    }

    private static Planned planned(Figures fmt, Step step) {
        return new Planned(step.title(), "≈ " + fmt.duration(step.expected()));
    }

    private static Optional<Change> change(Figures fmt, Plan plan, Usage held) {
        ByteLedger before = Ledgers.ofEstate(plan.before(), held);
        ByteLedger after = Ledgers.ofEstate(plan.after(), held);
        Bytes whole = before.label().max(after.label());
        return before.equals(after)
                ? Optional.empty()
                : Optional.of(new Change(
                        "estate before · " + fmt.size(before.free()) + " free",
                        LedgerPicture.draw(before, whole, BAR),
                        "after · " + fmt.size(after.free()) + " free",
                        LedgerPicture.draw(after, whole, BAR)));
    }

    private static List<Form> deeds(Order order) {
        String path = "/orders/" + order.id();
        Form discard = Form.of(path + "/discard", "").button("Discard");
        return switch (order.state()) {
            case DRAFT -> List.of(Form.of(path + "/ready", "").button("Ready for others"), discard);
            case READY -> List.of(Form.of(path + "/reopen", "").button("Into work again"), discard);
            default -> List.of(discard);
        };
    }
}
