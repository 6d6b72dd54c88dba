package org.vastshelf.app.rule;

import java.util.stream.Collectors;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.time.ScheduleWords;

/** When what was typed about a schedule would come. */
@Page
class ScheduleController {

    private static final int SHOWN = 3;

    private final ShelfClock clock;

    ScheduleController(ShelfClock clock) {
        this.clock = clock;
    }

    @GetMapping("/build/schedule")
    String coming(@ModelAttribute ScheduleForm form, Model model) {
        try {
            form.schedule().ifPresent(schedule -> model.addAttribute("coming", said(schedule, Figures.of(model))));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("comingProblem", refused.getMessage());
        }
        return "schedule :: coming";
    }

    /** In words, with its next moments. */
    private String said(Schedule schedule, Figures fmt) {
        return "Comes " + ScheduleWords.of(schedule) + ", next "
                + schedule.runs(clock.instant(), ShelfClock.ZONE, SHOWN).stream()
                        .map(fmt::moment)
                        .collect(Collectors.joining(", "));
    }
}
