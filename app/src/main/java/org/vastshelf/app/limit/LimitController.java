package org.vastshelf.app.limit;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.Bar;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.LimitChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

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

    /** A rule in a list. */
    record RuleRow(String key, String title, String whose, String stance, String warn, String grace, String stop) {

        static RuleRow of(Figures fmt, LimitRule rule) {
            return new RuleRow(
                    rule.key(),
                    rule.share() + " " + rule.path(),
                    rule.whose(),
                    rule.stance().title(),
                    level(fmt, rule.warnAt()),
                    rule.graceAt()
                            .map(g -> fmt.size(g) + " for " + fmt.duration(rule.graceTime()))
                            .orElse("—"),
                    level(fmt, rule.stopAt()));
        }

        private static String level(Figures fmt, Optional<Bytes> level) {
            return level.map(fmt::size).orElse("—");
        }
    }

    /** An account with how full it is; the bar ends at the strictest level. */
    record AccountRow(Mark state, String title, Figure used, String most, String full, Bar bar) {

        private static final double FULL = 0.995;
        private static final int WIDTH = 100;

        static AccountRow of(Figures fmt, Account account) {
            LimitRule rule = account.rule();
            Optional<Bytes> most = account.most();
            double share = most.map(m -> account.used().shareOf(m)).orElse(0.0);
            boolean warned =
                    rule.warnAt().filter(w -> account.used().compareTo(w) >= 0).isPresent();
            Mark.State state = share >= FULL && rule.stopAt().isPresent()
                    ? Mark.State.ACT
                    : warned ? Mark.State.WATCH : Mark.State.FINE;
            return new AccountRow(
                    new Mark(state, state.css()),
                    account.title(),
                    fmt.figure(fmt.key("account", account.title(), "used"), account.used()),
                    most.map(fmt::size).orElse("only tracked"),
                    most.map(m -> fmt.percent(share)).orElse("—"),
                    Bar.of(share, WIDTH, state));
        }
    }

    /** A page of accounts, and where the ones before and behind it begin. */
    record Accounts(String said, List<AccountRow> rows, List<Turn> turns) {}

    /** A way to another page of accounts. */
    record Turn(String words, int from) {}

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
        Figures fmt = Figures.of(model);
        model.addAttribute(
                "rules",
                Listing.of(
                                request,
                                rules,
                                LimitRule::title,
                                new Listing.Column<>("rule", Comparator.comparing(LimitRule::title)),
                                new Listing.Column<>("stance", Comparator.comparing(LimitRule::stance)))
                        .map(rule -> RuleRow.of(fmt, rule)));
        model.addAttribute("search", search(Typed.of(model).at("/limit"), asked, rules));
        model.addAttribute("accounts", accounts(fmt, asked, page));
        return "limit";
    }

    private static List<Field> search(Typed.Fields fields, Asked asked, List<LimitRule> rules) {
        Map<String, String> titles = new LinkedHashMap<>();
        titles.put("", "any");
        rules.stream().limit(MOST_CHOICES).forEach(rule -> titles.put(rule.key(), rule.title()));
        return List.of(
                fields.text("search", "Holder contains", asked.search).width("w-56"),
                fields.select("rule", "Under the rule", titles.keySet(), Function.identity(), titles::get, asked.rule)
                        .width("w-56"));
    }

    private static Accounts accounts(Figures fmt, Asked asked, AccountPageStore.Page page) {
        int shown = page.accounts().size();
        return new Accounts(
                shown == 0
                        ? "No account fits."
                        : fmt.count(asked.from + 1) + " to " + fmt.count(asked.from + shown) + " of "
                                + Counted.of(page.count(), "account"),
                page.accounts().stream().map(a -> AccountRow.of(fmt, a)).toList(),
                Stream.of(
                                new Turn("Fuller ones", Math.max(0, asked.from - PAGE)),
                                new Turn("Emptier ones", asked.from + PAGE))
                        .filter(turn -> turn.from < asked.from || turn.from > asked.from && turn.from < page.count())
                        .toList());
    }

    @GetMapping("/limit/new")
    String compose(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String share,
            @RequestParam(defaultValue = "") String rule,
            Model model) {
        LimitRule present = estates.load().limits().get(rule);
        LimitForm form = present == null ? LimitForm.empty(share) : LimitForm.of(present);
        return show(me, form, model);
    }

    private String show(Someone me, LimitForm form, Model model) {
        Typed.Fields fields = Typed.of(model).at("/limit/new");
        model.addAttribute(
                "about",
                form.about(fields, orders.withDraft(me.getName()).shares().keySet()));
        model.addAttribute("levels", form.levels(fields));
        return "limit-new";
    }

    @PostMapping("/limit/new")
    String add(@AuthenticationPrincipal Someone me, @ModelAttribute LimitForm form, Model model) {
        try {
            orders.add(me.getName(), new LimitChange.SetLimit(form.rule()));
            return "redirect:/limit";
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return show(me, form, model);
        }
    }

    @PostMapping("/limit/drop")
    String drop(@AuthenticationPrincipal Someone me, @RequestParam String rule) {
        orders.add(me.getName(), new LimitChange.DropLimit(rule));
        return "redirect:/limit";
    }
}
