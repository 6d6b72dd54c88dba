package org.vastshelf.app.rule;

import java.time.Instant;
import java.util.List;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.vastshelf.app.clock.ShelfClock;
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

    /** In words, with its next moments. */
    record Coming(String words, List<Instant> runs) {}

    @GetMapping("/build/schedule")
    String coming(@ModelAttribute ScheduleForm form, Model model) {
        try {
            form.schedule().ifPresent(schedule -> model.addAttribute("coming", coming(schedule)));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("comingProblem", refused.getMessage());
        }
        return "schedule :: coming";
    }

    private Coming coming(Schedule schedule) {
        return new Coming(ScheduleWords.of(schedule), schedule.runs(clock.instant(), ShelfClock.ZONE, SHOWN));
    }
}
