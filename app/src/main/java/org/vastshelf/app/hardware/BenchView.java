package org.vastshelf.app.hardware;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Standings;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.failure.PoolState;

/**
 * What can be made to happen to the hardware of the demo, and what happened.
 *
 * @param told what the last mishap led to
 */
public record BenchView(
        List<String> told,
        List<Drives> drives,
        Field blocks,
        Form bring,
        List<Server> servers,
        List<Wire> links,
        List<Row> pools,
        List<Event> events) {

    private static final double MIB = 1 << 20;

    /** The drives of a pool, to choose from. */
    public record Drives(String pool, List<Field.Option> drives) {}

    /** A file server, its power and its clients. */
    public record Server(String name, String said, String clients, Form power, Form load) {}

    /** A link between two sites. */
    public record Wire(String one, String other, String said, List<Field> fields) {}

    /** How a pool stands. */
    public record Row(String name, String layout, Mark standing, String gone, String canLose, String rebuilds) {}

    public record Event(String at, String text) {}

    static BenchView of(
            Figures fmt,
            Typed typed,
            Estate estate,
            List<Pool> pools,
            List<String> told,
            List<HardwareEventStore.Event> events) {
        Typed.Fields fields = typed.at("/build/bench");
        Typed.Fields bringing = typed.values().containsKey("size") ? fields : typed.at("/build/bench#bring");
        return new BenchView(
                told,
                pools.stream().map(p -> drives(estate, p)).toList(),
                fields.number("percent", "Blocks", 3).between(1, 1_000).width("w-24"),
                Form.of(
                                "/build/bench",
                                "A new drive",
                                bringing.text("drive", "Bay", "")
                                        .hint("such as fernhill/1/20")
                                        .width("w-48"),
                                bringing.text("size", "Drive of", "12 TB").width("w-28"),
                                bringing.tick("solid", "solid-state", false))
                        .button(Form.Button.of("Put it in", "kind", "bring")),
                estate.servers().values().stream()
                        .filter(s -> !s.managed())
                        .map(s -> server(typed, s))
                        .toList(),
                estate.all(Kinds.LINK).values().stream()
                        .map(link -> wire(typed, link))
                        .toList(),
                pools.stream().map(p -> row(fmt, estate, p)).toList(),
                events.stream()
                        .map(e -> new Event(fmt.moment(e.at()), e.text()))
                        .toList());
    }

    private static Drives drives(Estate estate, Pool pool) {
        return new Drives(
                pool.name() + ", " + pool.layoutTitle(),
                estate.drives(pool.drives().toList()).stream()
                        .map(BenchView::option)
                        .toList());
    }

    private static Field.Option option(Drive drive) {
        return new Field.Option(
                drive.key(),
                drive.key() + " · " + Figures.printed(drive.label()) + ", "
                        + drive.state().title(),
                false);
    }

    private static Server server(Typed typed, FileServer server) {
        Typed.Fields fields = typed.at("/build/bench#" + server.name());
        return new Server(
                server.name(),
                server.dark() ? "without power" : "with power",
                server.loadPercent() + " %",
                Form.of("/build/bench", "")
                        .button(
                                server.dark()
                                        ? Form.Button.of("Bring its power back", "kind", "back")
                                        : Form.Button.of("Cut its power", "kind", "cut")),
                Form.of(
                                "/build/bench",
                                "",
                                fields.number("percent", "Client load, %", server.loadPercent())
                                        .between(0, 95)
                                        .width("w-32"))
                        .button(Form.Button.of("Set the load", "kind", "load")));
    }

    private static Wire wire(Typed typed, Link link) {
        Typed.Fields fields = typed.at("/build/bench#" + link.key());
        return new Wire(
                link.one(),
                link.other(),
                link.cut() ? "cut" : String.format(Locale.ROOT, "%.1f MiB/s get through", link.bytesPerSecond() / MIB),
                List.of(
                        fields.text("mibps", "MiB/s", String.valueOf(link.mibps()))
                                .width("w-28"),
                        fields.text("millis", "Round trip, ms", String.valueOf(link.roundTripMillis()))
                                .width("w-32"),
                        fields.text("loss", "Of 1,000 packets lost", String.valueOf(link.lossPermille()))
                                .width("w-44")));
    }

    private static Row row(Figures fmt, Estate estate, Pool pool) {
        PoolState state = PoolState.of(estate, pool);
        return new Row(
                pool.name(),
                pool.layoutTitle(),
                Standings.mark(state.standing()),
                joined(
                        " + ",
                        state.groups().stream().map(g -> String.valueOf(g.gone().size()))),
                joined(" / ", state.groups().stream().map(g -> g.further() < 0 ? "lost" : String.valueOf(g.further()))),
                joined(
                        ", ",
                        estate.rebuildsOf(pool.name()).stream()
                                .map(r ->
                                        r.target() + " " + fmt.percent(r.done().shareOf(r.todo())))));
    }

    private static String joined(String between, Stream<String> parts) {
        return parts.collect(Collectors.joining(between));
    }
}
