package org.vastshelf.app.look;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.forecast.FillDates;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

class TimelineTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    /** Grows by 1,000 bytes a day up to yesterday and is full after so many days more. */
    private static Forecasts.Space space(int days) {
        History history = new History(
                TODAY.minusDays(30),
                IntStream.rangeClosed(1, 30).mapToObj(i -> Bytes.of(1_000L * i)).toList());
        Bytes capacity = Bytes.of(30_000L + 1_000L * days);
        return new Forecasts.Space(
                "volume",
                "film",
                capacity,
                history.last(),
                history.used().getLast(),
                FillDates.forecast(capacity, history));
    }

    private static final Figures FMT = new Figures(UnitSystem.BINARY);

    private static Timeline.Row row(int days) {
        return Timeline.draw(FMT, List.of(space(days)), TODAY).rows().getFirst();
    }

    @Test
    void twelve_months_with_the_year_where_it_begins() {
        List<Timeline.Month> months = Timeline.draw(FMT, List.of(), TODAY).months();
        assertThat(months).hasSize(12);
        assertThat(months.getFirst()).isEqualTo(new Timeline.Month(0, "Mar 26"));
        assertThat(months.get(10).label()).isEqualTo("Jan 27");
    }

    @Test
    void a_day_lies_where_its_date_is() {
        Timeline.Row soon = row(30);
        assertThat(soon.likely()).isEqualTo((int) Math.round(30 * 560.0 / 365));
        assertThat(soon.urgency()).isEqualTo(Mark.State.ACT);
        assertThat(row(100).urgency()).isEqualTo(Mark.State.WATCH);
        assertThat(row(200).urgency()).isEqualTo(Mark.State.FINE);
    }

    @Test
    void what_is_beyond_the_year_says_so() {
        assertThat(row(700).isOnIt()).isFalse();
        assertThat(row(30).isOnIt()).isTrue();
        assertThat(row(700).bar().filled()).isEqualTo(Math.round(80 * 30 / 730.0f));
    }
}
