package org.vastshelf.app.limit;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.LimitChange;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;
import org.vastshelf.core.unit.UnitSystem;

/** Limit rules and the accounts under them. */
@Page
class LimitController {

    private static final int PAGE = 100;
    private static final int MOST_CHOICES = 100;

    private final EstateStore estates;
    private final AccountPageStore accounts;
    private final OrderService orders;

    LimitController(EstateStore estates, AccountPageStore accounts, OrderService orders) {
        this.estates = estates;
        this.accounts = accounts;
        this.orders = orders;
    }

    /** An account with how full it is; the bar ends at the strictest level. */
    record AccountLine(Account account, Optional<Bytes> most, double share, String state) {
        public int getBar() {
            return (int) Math.min(100, Math.round(share * 100));
        }
    }

    /** Which accounts somebody wants to see. */
    record Asked(String search, String rule, Integer from) {
        Asked {
            search = search == null ? "" : search;
            rule = rule == null ? "" : rule;
            from = from == null ? 0 : Math.max(0, from);
        }
    }

    @GetMapping("/limit")
    String limit(
            @AuthenticationPrincipal Someone me,
            @ModelAttribute("asked") Asked asked,
            @ModelAttribute("scope") Scope scope,
            HttpServletRequest request,
            Model model) {
        Estate estate = estates.load();
        List<LimitRule> rules = estate.limits().values().stream()
                .filter(r -> Optional.ofNullable(estate.shares().get(r.share()))
                        .filter(me::sees)
                        .filter(s -> scope.covers(estate, estate.volumes().get(s.volume())))
                        .isPresent())
                .toList();
        AccountPageStore.Page page =
                accounts.page(estate, rules, new AccountPageStore.Wanted(asked.search, asked.rule), asked.from, PAGE);
        model.addAttribute(
                "rules",
                Listing.of(
                        request,
                        rules,
                        LimitRule::title,
                        new Listing.Column<>("rule", Comparator.comparing(LimitRule::title)),
                        new Listing.Column<>("stance", Comparator.comparing(LimitRule::stance))));
        model.addAttribute("choices", rules.stream().limit(MOST_CHOICES).toList());
        model.addAttribute("accountCount", page.count());
        model.addAttribute(
                "accounts", page.accounts().stream().map(LimitController::line).toList());
        model.addAttribute("next", asked.from + PAGE < page.count() ? asked.from + PAGE : -1);
        model.addAttribute("previous", asked.from > 0 ? Math.max(0, asked.from - PAGE) : -1);
        return "limit";
    }

    private static AccountLine line(Account account) {
        LimitRule rule = account.rule();
        Optional<Bytes> most = account.most();
        double share = most.map(m -> account.used().shareOf(m)).orElse(0.0);
        boolean warned =
                rule.warnAt().filter(w -> account.used().compareTo(w) >= 0).isPresent();
        String state = share >= 0.995 && rule.stopAt().isPresent() ? "act" : warned ? "watch" : "fine";
        return new AccountLine(account, most, share, state);
    }

    @GetMapping("/limit/new")
    String compose(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String share,
            @RequestParam(defaultValue = "") String rule,
            Model model) {
        LimitRule present = estates.load().limits().get(rule);
        LimitForm form = present == null ? LimitForm.empty(share) : LimitForm.of(present);
        return show(me, form, "", model);
    }

    private String show(Someone me, LimitForm form, String problem, Model model) {
        Estate estate = orders.withDraft(me.getName());
        model.addAttribute("form", form);
        model.addAttribute("problem", problem);
        model.addAttribute(
                "shares", estate.shares().values().stream().map(Share::name).toList());
        return "limit-new";
    }

    @PostMapping("/limit/new")
    String add(@AuthenticationPrincipal Someone me, @ModelAttribute LimitForm form, Model model) {
        try {
            orders.add(me.getName(), new LimitChange.SetLimit(form.rule()));
            return "redirect:/limit";
        } catch (IllegalArgumentException refused) {
            return show(me, form, refused.getMessage(), model);
        }
    }

    @PostMapping("/limit/drop")
    String drop(@AuthenticationPrincipal Someone me, @RequestParam String rule) {
        orders.add(me.getName(), new LimitChange.DropLimit(rule));
        return "redirect:/limit";
    }

    /** Who gets an account, as one choice. */
    enum Whose {
        FOLDER,
        CHILD,
        PERSON,
        GROUP;

        static Whose of(LimitRule rule) {
            return switch (rule.apart()) {
                case NOBODY -> rule.eachChild() ? CHILD : FOLDER;
                case PERSON -> PERSON;
                case GROUP -> GROUP;
            };
        }

        Apart apart() {
            return switch (this) {
                case FOLDER, CHILD -> Apart.NOBODY;
                case PERSON -> Apart.PERSON;
                case GROUP -> Apart.GROUP;
            };
        }
    }

    /** What was typed about a limit rule; an empty level is none. */
    record LimitForm(
            String share,
            String path,
            @Nullable Whose whose,
            String warnAt,
            String graceAt,
            Long graceHours,
            String stopAt) {
        LimitForm {
            whose = whose == null ? Whose.FOLDER : whose;
            graceHours = graceHours == null ? LimitRule.DEFAULT_GRACE.toHours() : graceHours;
            path = path == null || path.isBlank() ? "/" : path.strip();
        }

        static LimitForm empty(String share) {
            return new LimitForm(share, "/", Whose.FOLDER, "", "", LimitRule.DEFAULT_GRACE.toHours(), "");
        }

        static LimitForm of(LimitRule rule) {
            return new LimitForm(
                    rule.share(),
                    rule.path().text(),
                    Whose.of(rule),
                    typed(rule.warnAt()),
                    typed(rule.graceAt()),
                    rule.graceTime().toHours(),
                    typed(rule.stopAt()));
        }

        private static String typed(Optional<Bytes> level) {
            return level.map(b -> {
                        String rounded = UnitSystem.BINARY.format(b);
                        boolean exact = SizeText.parse("level", rounded, Bytes.ZERO, FAR)
                                .equals(b);
                        return exact ? rounded : String.valueOf(b.value());
                    })
                    .orElse("");
        }

        private static final Bytes FAR = Bytes.tib(1024 * 1024);

        LimitRule rule() {
            return new LimitRule(
                    share,
                    new FilePath(path),
                    whose == Whose.CHILD,
                    whose.apart(),
                    level("warn level", warnAt),
                    level("grace level", graceAt),
                    Duration.ofHours(graceHours),
                    level("stop level", stopAt));
        }

        private static Optional<Bytes> level(String name, String typed) {
            return typed == null || typed.isBlank()
                    ? Optional.empty()
                    : Optional.of(SizeText.parse(name, typed, Bytes.of(1), Bytes.tib(1024)));
        }
    }
}
