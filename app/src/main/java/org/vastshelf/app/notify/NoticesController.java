package org.vastshelf.app.notify;

import java.util.List;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;

/** Who was told what. */
@Page
class NoticesController {

    private static final int PAGE = 100;

    private final NoticeStore notices;

    NoticesController(NoticeStore notices) {
        this.notices = notices;
    }

    @GetMapping("/look/notices")
    String list(@RequestParam(defaultValue = "9223372036854775807") long before, Model model) {
        List<NoticeStore.Notice> found = notices.page(before, PAGE + 1);
        Figures fmt = Figures.of(model);
        model.addAttribute(
                "notices", found.stream().limit(PAGE).map(n -> Row.of(fmt, n)).toList());
        if (found.size() > PAGE) {
            model.addAttribute("older", found.get(PAGE - 1).id());
        }
        return "notices";
    }

    /** A notice and how far its mail has come. */
    record Row(String at, String recipient, String subject, String body, Mark mail) {

        static Row of(Figures fmt, NoticeStore.Notice notice) {
            return new Row(
                    fmt.moment(notice.at()),
                    notice.recipient(),
                    notice.subject(),
                    notice.body(),
                    notice.sentAt() != null
                            ? Mark.fine("sent")
                            : notice.problem().isEmpty() ? Mark.waiting("waiting") : Mark.failed(notice.problem()));
        }
    }
}
