package org.vastshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.Replacement;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** What a preview says of a pool is what the order makes of it, and what follows from a choice is told before. */
class PreviewsTest {

    private static final long SIX_TB = 6_000_000_000_000L;
    private static final Usage USAGE = new Usage(Map.of("film", new Usage.Held(Bytes.tib(10), Bytes.ZERO)));
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    /** Bays 1 to 4 and 5 to 8 are two groups of pool oak, 9 to 12 unclaimed drives twice as large. */
    private static Estate estate() {
        List<Long> sizes = new ArrayList<>(Collections.nCopies(8, SIX_TB));
        sizes.addAll(Collections.nCopies(4, 2 * SIX_TB));
        return Planner.plan(
                        Samples.racked(sizes),
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool("oak", "hill", Samples.bays(8), Layout.RAID_5, 0, false, 2),
                                new VolumeChange.ComposeVolume(Samples.volume("film", "oak", 12_000, true))))
                .after();
    }

    private static PoolChange.ReplaceDrives replace(boolean take, int... places) {
        List<PoolChange.Swap> swaps = new ArrayList<>();
        for (int i = 0; i < places.length; i++) {
            swaps.add(new PoolChange.Swap("hill/1/" + places[i], "hill/1/" + (9 + i)));
        }
        return new PoolChange.ReplaceDrives("oak", swaps, take);
    }

    private static Bytes data(Estate estate) {
        return Ledgers.data(estate, estate.pools().get("oak"));
    }

    /** Each keeps a few GiB of its own. */
    private static long drives(Bytes bytes) {
        return Math.round((double) bytes.value() / SIX_TB);
    }

    private static List<String> texts(Plan plan) {
        return plan.checks().stream().map(Check::text).toList();
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void a_replacement_gives_what_its_last_stage_says(boolean take) {
        Estate estate = estate();
        PoolChange.ReplaceDrives change = replace(take, 1, 2, 3, 4);
        List<Replacement.Stage> stages = Replacements.stages(estate, USAGE, change);
        Plan plan = Planner.plan(estate, USAGE, List.of(change));
        assertThat(drives(data(estate))).isEqualTo(6);
        assertThat(stages.getLast().data()).isEqualTo(data(plan.after()));
        assertThat(drives(data(plan.after()))).isEqualTo(take ? 9 : 6);
        double least =
                stages.stream().mapToDouble(Replacement.Stage::leastHours).sum();
        double most = stages.stream().mapToDouble(Replacement.Stage::mostHours).sum();
        assertThat(texts(plan))
                .anyMatch(t -> t.startsWith(
                        String.format(Locale.ROOT, "Copying takes %.0f to %.0f hours in all", least, most)));
    }

    @Test
    void a_member_that_counts_less_than_its_label_counts_so_in_the_preview_too() {
        Estate untaken =
                Planner.plan(estate(), USAGE, List.of(replace(false, 1, 2, 3))).after();
        PoolChange.ReplaceDrives last =
                new PoolChange.ReplaceDrives("oak", List.of(new PoolChange.Swap("hill/1/4", "hill/1/12")), true);
        assertThat(Replacements.stages(untaken, USAGE, last).getLast().data())
                .isEqualTo(data(Planner.plan(untaken, USAGE, List.of(last)).after()))
                .satisfies(b -> assertThat(drives(b)).isEqualTo(9));
        PoolChange.AddDrives wider = new PoolChange.AddDrives("oak", 0, List.of("hill/1/1"));
        Plan plan = Planner.plan(untaken, USAGE, List.of(wider));
        assertThat(drives(data(plan.after()))).isEqualTo(7);
        assertThat(plan.checks()).noneMatch(c -> c.key().endsWith("stranded"));
    }

    @Test
    void a_group_that_is_weaker_or_of_another_kind_is_told() {
        Plan weaker = Planner.plan(
                estate(),
                USAGE,
                List.of(new PoolChange.AddGroup("oak", List.of("hill/1/9", "hill/1/10"), Layout.RAID_0, false, false)));
        assertThat(texts(weaker))
                .anyMatch(t -> t.startsWith("The new group survives 0 lost drives, the weakest of oak"
                        + " so far one lost drive; data lie over all groups"));
        Estate mixed = Samples.solidState(estate(), List.of("hill/1/9"));
        Plan other = Planner.plan(
                mixed,
                USAGE,
                List.of(new PoolChange.AddGroup(
                        "oak", List.of("hill/1/9", "hill/1/10", "hill/1/11"), Layout.RAID_5, false, false)));
        assertThat(texts(other)).anyMatch(t -> t.startsWith("Drive hill/1/9 is solid-state"));
        assertThat(other.checks()).noneMatch(c -> c.key().endsWith("unequal"));
    }

    @Test
    void a_pool_that_is_full_before_its_last_copying_ends_is_told() {
        List<Change> changes = List.of(replace(true, 1, 2));
        LocalDate end = Outlook.endOf(Replacements.stages(estate(), USAGE, replace(true, 1, 2)), TODAY);
        assertThat(end).isAfter(TODAY);
        assertThat(Outlook.checks(estate(), USAGE, changes, Map.of("oak", end), TODAY))
                .singleElement()
                .satisfies(c -> assertThat(c.text())
                        .isEqualTo("Pool oak is likely full on " + end + ", before the last copying ends on " + end
                                + " at the latest"));
        assertThat(Outlook.checks(estate(), USAGE, changes, Map.of("oak", end.plusDays(1)), TODAY))
                .isEmpty();
        assertThat(Outlook.checks(estate(), USAGE, changes, Map.of(), TODAY)).isEmpty();
    }

    /** The same figures for whoever reads them; nothing else differs. */
    @Test
    void a_plan_speaks_the_units_of_its_reader() {
        Estate estate = estate();
        VolumeChange.ResizeVolume grow = new VolumeChange.ResizeVolume("film", Bytes.tib(40));
        Plan binary = Planner.plan(estate, USAGE, List.of(grow), UnitSystem.BINARY);
        Plan decimal = Planner.plan(estate, USAGE, List.of(grow), UnitSystem.DECIMAL);
        assertThat(binary.after()).isEqualTo(decimal.after());
        assertThat(said(binary)).contains("40.00 TiB").doesNotContain(" TB");
        assertThat(said(decimal)).contains("43.98 TB").doesNotContain("TiB");
        assertThat(grow.title(UnitSystem.DECIMAL)).isEqualTo("Grow volume film to 43.98 TB");
    }

    private static String said(Plan plan) {
        return Stream.concat(
                        plan.checks().stream().map(c -> c.text() + c.remedy()),
                        plan.steps().stream().map(Step::title))
                .collect(Collectors.joining("\n"));
    }
}
