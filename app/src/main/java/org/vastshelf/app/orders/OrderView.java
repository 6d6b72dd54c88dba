package org.vastshelf.app.orders;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.kit.Bar;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.change.Wait;

/**
 * What the page of one order shows.
 *
 * @param waits why its next step does not begin yet; empty where nothing holds it
 * @param deeds what this person can do with it
 * @param draft its changes, as long as it is one
 * @param road where a draft goes on from here
 */
public record OrderView(
        long id,
        String lead,
        Mark state,
        String outcome,
        boolean moving,
        List<Row> steps,
        String waits,
        List<Form> deeds,
        List<Line> draft,
        String road) {

    private static final int BAR = 100;

    /** A step with its journal. */
    public record Row(int number, String what, Mark state, String begun, String ends, Bar bar, String percent) {}

    /** A change of a draft. */
    public record Line(String css, String what) {}

    /** What makes its steps be fetched anew; null once nothing moves. */
    public @Nullable String trigger() {
        return moving ? "sse:tick" : null;
    }

    static OrderView of(Figures fmt, Order order, Optional<Wait> wait, Someone me, Instant now) {
        return new OrderView(
                order.id(),
                order.title(fmt.units()) + ", by " + order.author(),
                order.state().mark(),
                order.outcome(),
                order.isUnderWay(),
                order.steps().stream().map(s -> row(fmt, s, now)).toList(),
                wait.map(w -> waiting(fmt, w)).orElse(""),
                me.mayRun() ? deeds(order) : List.of(),
                order.state().isDraft()
                        ? order.lines().stream()
                                .map(l -> new Line(
                                        l.struck() ? "struck" : "", l.change().title(fmt.units())))
                                .toList()
                        : List.of(),
                road(order, me));
    }

    private static Row row(Figures fmt, Order.Journalled step, Instant now) {
        int percent = step.percent(now);
        return new Row(
                step.position() + 1,
                step.step().title(),
                mark(step.state()),
                moment(fmt, step.startedAt()),
                ends(fmt, step),
                Bar.of(percent / 100.0, BAR, Mark.State.FINE),
                percent + " %");
    }

    private static Mark mark(Order.StepState state) {
        String word = state.name().toLowerCase(Locale.ROOT).replace('_', ' ');
        return switch (state) {
            case DONE -> Mark.fine(word);
            case TAKEN_BACK -> Mark.watch(word);
            case WAITING, STARTED -> Mark.waiting(word);
        };
    }

    static String moment(Figures fmt, @Nullable Instant at) {
        return at == null ? "—" : fmt.moment(at);
    }

    private static String ends(Figures fmt, Order.Journalled step) {
        return Stream.of(step.finishedAt(), step.dueAt())
                .filter(java.util.Objects::nonNull)
                .findFirst()
                .map(fmt::moment)
                .orElse("≈ " + fmt.duration(step.step().expected()));
    }

    private static String waiting(Figures fmt, Wait wait) {
        return wait.reason()
                + wait.until()
                        .map(at -> "; the next step begins when that is done, expected " + fmt.moment(at) + ".")
                        .orElse("; the next step begins when that has ended.");
    }

    private static List<Form> deeds(Order order) {
        String path = "/orders/" + order.id();
        Form back = Form.of(path + "/take-back", "").button("Take it back");
        return switch (order.state()) {
            case RUNNING -> List.of(Form.of(path + "/pause", "").button("Pause it"), back);
            case PAUSED -> List.of(Form.of(path + "/go-on", "").button("Let it go on"), back);
            case ASKING ->
                List.of(
                        Form.of(path + "/take-back", "").button("Try to take it back again"),
                        Form.of(path + "/leave", "").button("Leave it as it is"));
            case DRAFT, READY, TAKING_BACK, DONE, TAKEN_BACK, LEFT -> List.of();
        };
    }

    private static String road(Order order, Someone me) {
        if (order.state().isDraft() && order.author().equals(me.getName())) {
            return "It is edited and carried out in the order drawer.";
        }
        if (order.state() == OrderState.DRAFT) {
            return "In " + order.author() + "'s work. It can be carried out once it is called ready.";
        }
        return order.state() == OrderState.READY && me.mayRun()
                ? "It is confirmed and carried out in the order drawer."
                : "";
    }
}
