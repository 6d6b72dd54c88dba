package org.vastshelf.app.build;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutQuestion;

/** Composing a pool: drives on one side, what every layout makes of them on the other. */
@Page
class PoolComposer {

    private final EstateStore estates;
    private final OrderService orders;

    PoolComposer(EstateStore estates, OrderService orders) {
        this.estates = estates;
        this.orders = orders;
    }

    @GetMapping("/build/new/pool")
    String composePool(
            @RequestParam(defaultValue = "") String server,
            @RequestParam(required = false) List<String> drives,
            @ModelAttribute("scope") Scope scope,
            Model model) {
        Estate estate = estates.load();
        String wanted = server.isEmpty() ? scope.server() : server;
        String chosen =
                wanted.isEmpty() || BuildController.unclaimed(estate, wanted).isEmpty()
                        ? withUnclaimed(estate)
                        : wanted;
        PoolForm form = new PoolForm("", chosen, drives, null, 0, false, 1);
        return showPool(form, model);
    }

    private static String withUnclaimed(Estate estate) {
        return estate.servers().keySet().stream()
                .max(Comparator.comparingInt(
                        s -> BuildController.unclaimed(estate, s).size()))
                .orElse("");
    }

    /**
     * What is chosen from.
     *
     * @param servers file servers with unclaimed drives, where there are several
     */
    record View(String action, List<Field> servers, PoolForm form, DrivePick drives, List<Field> fields) {}

    private String showPool(PoolForm form, Model model) {
        Estate estate = estates.load();
        Typed.Fields fields = Typed.of(model).at("/build/new/pool");
        List<String> servers = estate.servers().keySet().stream()
                .filter(s -> !BuildController.unclaimed(estate, s).isEmpty())
                .toList();
        model.addAttribute(
                "page",
                new View(
                        fields.action(),
                        servers.size() < 2
                                ? List.of()
                                : List.of(Typed.of(model)
                                        .at("server")
                                        .select("server", "File server", servers, form.server())
                                        .width("w-64")),
                        form,
                        DrivePick.of(
                                Figures.of(model),
                                "drives",
                                "Unclaimed drives of " + form.server(),
                                BuildController.unclaimed(estate, form.server()),
                                form.drives()),
                        List.of(
                                fields.text("name", "Name of the pool", form.name()),
                                fields.number("spares", "Hot spares", form.spares())
                                        .between(0, 99)
                                        .width("w-28"),
                                fields.number("groups", "Groups", form.groups())
                                        .between(1, 99)
                                        .width("w-28"),
                                fields.tick(
                                        "surfaceCheck",
                                        "Check the surfaces first (takes hours)",
                                        form.surfaceCheck()))));
        compare(form, model);
        return "pool-new";
    }

    /** Recomputed whenever the choice changes. */
    @PostMapping("/build/compare")
    String compareAgain(@ModelAttribute PoolForm form, Model model) {
        compare(form, model);
        return "pool-new :: consequence";
    }

    private void compare(PoolForm form, Model model) {
        Estate estate = estates.load();
        List<Drive> drives = form.drives().stream()
                .map(estate.drives()::get)
                .filter(java.util.Objects::nonNull)
                .toList();
        if (drives.isEmpty()) {
            model.addAttribute("comparisonQuiet", "No drive chosen yet.");
            return;
        }
        try {
            LayoutQuestion question = LayoutQuestion.withDefaults(
                    drives.stream().map(Drive::label).toList(),
                    form.spares(),
                    drives.getFirst().kind().rates());
            model.addAttribute(
                    "comparison",
                    Comparison.of(
                            Figures.of(model),
                            drives,
                            spares(drives, form.spares()),
                            question,
                            form.layout(),
                            form.groups()));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("comparisonProblem", refused.getMessage());
        }
    }

    /** The spares that would be kept: the largest, since a spare has to be able to stand in for any member. */
    private static List<Drive> spares(List<Drive> drives, int count) {
        return drives.stream()
                .sorted(Comparator.comparing(Drive::label)
                        .thenComparing(Drive::key)
                        .reversed())
                .limit(Math.max(0, count))
                .toList();
    }

    /** The same where the browser runs no scripts. */
    @PostMapping(path = "/build/new/pool", params = "compare")
    String compareWhole(@ModelAttribute PoolForm form, Model model) {
        return showPool(form, model);
    }

    @PostMapping(path = "/build/new/pool", params = "!compare")
    String addPool(@AuthenticationPrincipal Someone me, @ModelAttribute PoolForm form, Model model) {
        try {
            Layout layout = Optional.ofNullable(form.layout())
                    .orElseThrow(() -> new IllegalArgumentException("no layout is chosen, choose one of the table"));
            orders.add(
                    me.getName(),
                    new PoolChange.ComposePool(
                            form.name(),
                            form.server(),
                            form.drives(),
                            layout,
                            form.spares(),
                            form.surfaceCheck(),
                            form.groups()));
            return "redirect:/build?scope=" + form.server();
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return showPool(form, model);
        }
    }

    /** What was typed about a pool. */
    record PoolForm(
            String name,
            String server,
            List<String> drives,
            @org.jspecify.annotations.Nullable Layout layout,
            Integer spares,
            Boolean surfaceCheck,
            Integer groups) {
        PoolForm {
            groups = groups == null || groups < 1 ? 1 : groups;
            spares = spares == null ? 0 : spares;
            surfaceCheck = Boolean.TRUE.equals(surfaceCheck);
            name = name == null ? "" : name.strip();
            server = server == null ? "" : server;
            drives = drives == null ? List.of() : List.copyOf(drives);
        }
    }
}
