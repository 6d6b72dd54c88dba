package org.vastshelf.app.notify;

import java.util.List;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
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
        model.addAttribute("notices", found.stream().limit(PAGE).toList());
        model.addAttribute("older", found.size() > PAGE ? found.get(PAGE - 1).id() : 0);
        return "notices";
    }
}
