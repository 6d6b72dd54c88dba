package org.vastshelf.app.build;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LiftRule;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Paces;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ScrubRule;
import org.vastshelf.core.failure.SpareFit;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/**
 * What can be changed of a pool while it runs.
 *
 * @param deeds what takes no more than a button
 * @param drives more drives; empty for a reservation
 * @param rules what is done to it by itself
 * @param room its reserve, and what is reserved
 */
public record PoolForms(List<Form> deeds, Optional<MoreDrives> drives, List<ByItself> rules, List<Form> room) {

    /** Whether something is done here by a press of a button. */
    public boolean hasActions() {
        return drives.isPresent() || !deeds.isEmpty();
    }

    /**
     * Drives for it, in one of three ways.
     *
     * @param none why there is nothing to choose; empty where there is
     */
    public record MoreDrives(
            boolean open, String none, DrivePick pick, Form group, Form into, Optional<Release> release) {}

    /** Hot spares that can be given back. */
    public record Release(String action, DrivePick pick) {}

    /** Something that comes by a schedule. */
    public record ByItself(Form schedule, List<Field> further) {}

    static PoolForms of(Figures fmt, Typed typed, Estate estate, Pool pool) {
        String path = "/build/pools/" + pool.name();
        if (pool.isReservation()) {
            return new PoolForms(
                    List.of(),
                    Optional.empty(),
                    List.of(),
                    List.of(reserve(typed, pool, path), kept(fmt, typed, estate, pool, path)));
        }
        return new PoolForms(
                deeds(pool, path),
                Optional.of(moreDrives(fmt, typed, estate, pool, path)),
                byItself(typed, estate, pool, path),
                List.of(reserve(typed, pool, path)));
    }

    private static List<Form> deeds(Pool pool, String path) {
        List<Form> deeds = new java.util.ArrayList<>();
        if (pool.groups().stream().anyMatch(g -> !g.counted().isEmpty())) {
            deeds.add(Form.of(path + "/take-space", "").button("Take the new space"));
        }
        for (int i = 0; pool.groups().size() > 1 && i < pool.groups().size(); i++) {
            if (!pool.groups().get(i).isLeaving()) {
                deeds.add(Form.of(path + "/remove-group", "")
                        .button(Form.Button.of("Take group " + (i + 1) + " out", "group", String.valueOf(i))));
            }
        }
        deeds.add(Form.of(path + "/dissolve", "").button("Dissolve it ∎"));
        return deeds;
    }

    private static MoreDrives moreDrives(Figures fmt, Typed typed, Estate estate, Pool pool, String path) {
        Typed.Fields fields = typed.at(path + "/group", path + "/drives", path + "/spares");
        List<Drive> free = BuildController.unclaimed(estate, pool.server());
        List<DriveGroup> groups = pool.groups();
        List<Integer> numbers = IntStream.range(0, groups.size()).boxed().toList();
        Form group = Form.of(
                        path + "/group",
                        "",
                        fields.select(
                                        "layout",
                                        "As a group of its own, in ∎",
                                        Arrays.asList(Layout.values()),
                                        Layout::name,
                                        Layout::title,
                                        groups.getFirst().layout())
                                .width("w-52"),
                        fields.select("part", "for", PARTS, Part::key, Part::title, PARTS.getFirst())
                                .width("w-60"))
                .button("Add the group to the draft");
        Form into = Form.of(
                        path + "/drives",
                        "",
                        fields.select(
                                        "group",
                                        "Or into group",
                                        numbers,
                                        String::valueOf,
                                        i -> (i + 1) + ": "
                                                + groups.get(i).layout().title(),
                                        0)
                                .width("w-52"))
                .button(Form.Button.to(path + "/drives", "Add the drives to the draft"))
                .button(Form.Button.to(path + "/spares", "Keep them as hot spares"));
        Typed.Fields releasing = typed.at(path + "/release-spares");
        return new MoreDrives(
                fields.isTyped() || releasing.isTyped(),
                free.isEmpty()
                        ? pool.server()
                                + " has no unclaimed drive. Rack some and rescan, or release drives of another pool."
                        : "",
                DrivePick.of(fmt, "drives", "Unclaimed drives of " + pool.server(), free, fields.chosen("drives")),
                group,
                into,
                release(fmt, releasing, estate, pool));
    }

    /** What a group of its own is for. */
    private record Part(String key, String title) {}

    private static final List<Part> PARTS = List.of(
            new Part("bulk", "more of the same"),
            new Part("tier", "a fast part that adds space"),
            new Part("cache", "a fast part as read cache"));

    private static Optional<Release> release(Figures fmt, Typed.Fields typed, Estate estate, Pool pool) {
        List<Drive> spares =
                SpareFit.of(estate, pool).stream().map(SpareFit::spare).toList();
        return spares.isEmpty()
                ? Optional.empty()
                : Optional.of(new Release(
                        typed.action(), DrivePick.of(fmt, "drives", "Hot spares", spares, typed.chosen("drives"))));
    }

    private static List<ByItself> byItself(Typed typed, Estate estate, Pool pool, String path) {
        Typed.Fields scrub = typed.at(path + "/scrub");
        ByItself scrubbing = new ByItself(
                new Form(
                        path + "/scrub",
                        "When is it scrubbed by itself?",
                        ScheduleForm.fields(
                                scrub,
                                estate.find(Kinds.SCRUBBING, pool.name()).map(ScrubRule::when),
                                ScheduleForm.hourly()),
                        List.of(Form.Button.of("Set the schedule")),
                        ""),
                List.of());
        if (!pool.isTiered()) {
            return List.of(scrubbing);
        }
        LiftRule rule = LiftRule.of(estate, pool.name());
        Typed.Fields lift = typed.at(path + "/lift");
        return List.of(
                scrubbing,
                new ByItself(
                        new Form(
                                path + "/lift",
                                "When does its lift run?",
                                ScheduleForm.fields(lift, rule.when(), ScheduleForm.hourly()),
                                List.of(Form.Button.of("Set the lift")),
                                ""),
                        List.of(
                                lift.text("hours", "for at most, hours", String.valueOf(rule.hours()))
                                        .width("w-40"),
                                lift.text("limit", "limit, MiB/s", String.valueOf(rule.limitMibps()))
                                        .width("w-40"))));
    }

    private static Form reserve(Typed typed, Pool pool, String path) {
        Typed.Fields fields = typed.at(path + "/reserve");
        return Form.of(
                        path + "/reserve",
                        "What is kept back?",
                        fields.text("size", "Reserve", SizeText.exact(pool.reserve()))
                                .hint("a size or %")
                                .width("w-48"))
                .button("Set the reserve");
    }

    private static Form kept(Figures fmt, Typed typed, Estate estate, Pool pool, String path) {
        Typed.Fields fields = typed.at(path + "/reservation");
        return Form.of(
                        path + "/reservation",
                        "How much is reserved?",
                        fields.text("size", "Reserve in all", pool.reserved().value() / Bytes.TIB + " TiB")
                                .width("w-40"),
                        paceField(
                                        fmt,
                                        fields,
                                        estate.servers().get(pool.server()).paces(),
                                        pool.pace())
                                .width("w-80"))
                .button("Add to the draft");
    }

    /** What of a managed service is paid for. */
    static Field paceField(Figures fmt, Typed.Fields fields, Paces paces, PaceClass chosen) {
        return fields.select(
                "pace",
                "Pace class",
                Arrays.asList(PaceClass.values()),
                PaceClass::name,
                c -> c.title() + ": " + paces.of(c).mibps() + " MiB/s and "
                        + fmt.money(paces.of(c).cents()) + " for each TiB",
                chosen);
    }
}
