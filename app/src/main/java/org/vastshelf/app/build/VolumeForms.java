package org.vastshelf.app.build;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.UnitSystem;
import org.vastshelf.core.volume.PaceBudget;

/**
 * What can be changed of a volume while clients go on.
 *
 * @param deeds what takes no more than a button
 * @param looks when its growth rule looks
 */
public record VolumeForms(List<Form> sizes, List<Form> deeds, Form growth, List<Field> looks) {

    private record By(String key, String title) {}

    private static final By PERCENT = new By("percent", "by %");
    private static final By BYTES = new By("bytes", "by a size");
    private static final List<By> WAYS = List.of(PERCENT, BYTES, new By("size", "to a size"));
    private static final By BY_SIZE = new By("false", "by size");
    private static final By BY_HAND = new By("true", "by hand");

    static VolumeForms of(Figures fmt, Typed typed, Estate estate, Volume volume) {
        String path = "/build/volumes/" + volume.name();
        Pool pool = estate.pools().get(volume.pool());
        Optional<GrowthRule> rule = estate.find(Kinds.GROWTH, volume.name());
        Typed.Fields growing = typed.at(path + "/growth");
        Form growth = new Form(
                path + "/growth",
                "Should it grow by itself?",
                GrowthForm.of(volume, rule).fields(growing),
                Stream.of(
                                Form.Button.of(rule.isPresent() ? "Change the rule" : "Let it grow"),
                                Form.Button.of("Stop that", "on", "false"))
                        .limit(rule.isPresent() ? 2 : 1)
                        .toList(),
                "");
        return new VolumeForms(
                List.of(
                        grow(typed, path, estate.servers().get(pool.server())),
                        pace(fmt, typed, path, volume, pool, PaceBudget.of(estate, pool, volume.name())),
                        alarm(typed, path, volume)),
                List.of(
                        Form.of(path + "/kind", "")
                                .button(Form.Button.of(
                                        volume.thin() ? "Make it thick" : "Make it thin",
                                        "thin",
                                        String.valueOf(!volume.thin()))),
                        Form.of(path + "/remove", "").button("Remove it ∎")),
                growth,
                ScheduleForm.fields(
                        growing,
                        Optional.of(rule.map(GrowthRule::looks).orElse(GrowthRule.OFTEN)),
                        ScheduleForm.always()));
    }

    private static Form grow(Typed typed, String path, FileServer server) {
        Typed.Fields fields = typed.at(path + "/grow");
        Form form = Form.of(
                        path + "/grow",
                        "How large should it be?",
                        fields.select("by", "Grow", WAYS, By::key, By::title, server.managed() ? BYTES : PERCENT)
                                .width("w-28"),
                        fields.text(
                                        "amount",
                                        "Amount",
                                        server.managed()
                                                ? UnitSystem.BINARY.format(
                                                        server.sizes().step())
                                                : "10 %")
                                .width("w-36"))
                .button("Add to the draft");
        return server.managed() ? form.note("Volumes here: " + server.sizes().text() + ".") : form;
    }

    private static Form pace(Figures fmt, Typed typed, String path, Volume volume, Pool pool, PaceBudget budget) {
        Typed.Fields fields = typed.at(path + "/pace");
        boolean byHand = volume.pace().byHand();
        return Form.of(
                        path + "/pace",
                        "How fast may it be?",
                        fields.select(
                                        "byHand",
                                        "Pace",
                                        List.of(BY_SIZE, BY_HAND),
                                        By::key,
                                        By::title,
                                        byHand ? BY_HAND : BY_SIZE)
                                .width("w-28"),
                        fields.text(
                                        "mibps",
                                        "MiB/s by hand",
                                        byHand ? String.valueOf(volume.pace().mibps()) : "")
                                .width("w-36"))
                .button("Add to the draft")
                .note(pool.name() + " has " + fmt.whole(budget.budget()) + " MiB/s, " + fmt.whole(budget.left())
                        + " of them not given by hand to others");
    }

    private static Form alarm(Typed typed, String path, Volume volume) {
        Typed.Fields fields = typed.at(path + "/alarm");
        return Form.of(
                        path + "/alarm",
                        "From when on is it called full?",
                        fields.text("percent", "Alarm level", volume.alarmPercent() + " %")
                                .width("w-28"))
                .button("Add to the draft");
    }
}
