package org.vastshelf.app.build;

import java.util.List;
import java.util.stream.IntStream;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Standings;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.failure.SpareFit;

/** The drives of a pool, by group, and its hot spares. */
public record PoolGroups(List<Row> rows, List<Spare> spares) {

    /** A drive in a few characters. */
    public record Chip(String key, String text, String css) {}

    public record Row(
            int number,
            String layout,
            Mark standing,
            String data,
            String canLose,
            String rebuild,
            String ofAllocated,
            List<Chip> members) {}

    public record Spare(Mark fit, Chip drive) {}

    /**
     * Writes groups out.
     *
     * @param allocated share of the pool's usable bytes that is in use, which is what a rebuild has to copy
     */
    static PoolGroups of(Figures fmt, List<GroupView> groups, List<SpareFit> spares, double allocated) {
        return new PoolGroups(
                IntStream.range(0, groups.size())
                        .mapToObj(i -> row(fmt, i + 1, groups.get(i), allocated))
                        .toList(),
                spares.stream().map(PoolGroups::spare).toList());
    }

    private static Row row(Figures fmt, int number, GroupView view, double allocated) {
        int further = view.state().further();
        return new Row(
                number,
                title(view.group()),
                Standings.mark(view.state().standing()),
                fmt.large(view.layout().data()),
                further < 0 ? "lost" : String.valueOf(further),
                hours(fmt, view, 1),
                hours(fmt, view, allocated),
                view.drives().stream().map(drive -> member(view, drive)).toList());
    }

    static String title(DriveGroup group) {
        return group.layout().title()
                + (group.part() == DriveGroup.Part.BULK
                        ? ""
                        : ", " + group.part().title());
    }

    private static String hours(Figures fmt, GroupView view, double share) {
        return view.layout().rebuildHours().stream()
                .mapToObj(hours -> fmt.hours(hours * share))
                .findFirst()
                .orElse("—");
    }

    private static Chip member(GroupView view, Drive drive) {
        boolean gone = view.state().gone().contains(drive.key());
        String sign = gone ? " ✕" : drive.health().ailment().isPresent() ? " ■" : "";
        return new Chip(drive.key(), brief(drive) + sign, gone ? "act" : "");
    }

    private static Spare spare(SpareFit fit) {
        Mark.State state = fit.fits() == fit.members() ? Mark.State.FINE : Mark.State.WATCH;
        return new Spare(new Mark(state, fit.text()), new Chip(fit.spare().key(), brief(fit.spare()), ""));
    }

    private static String brief(Drive drive) {
        return drive.enclosure() + "/" + drive.bay() + " "
                + Figures.printed(drive.label()).replace(" TB", "T");
    }
}
