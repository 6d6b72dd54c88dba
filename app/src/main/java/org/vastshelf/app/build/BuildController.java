package org.vastshelf.app.build;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.frame.LedgerPicture;
import org.vastshelf.app.frame.NotFound;
import org.vastshelf.app.frame.Page;
import org.vastshelf.app.frame.Scope;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.ledger.ByteKind;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** Bays, pools and volumes, and the composers for them. */
@Page
class BuildController {

    private static final int BAR = 780;

    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;

    BuildController(EstateStore estates, UsageStore usage, OrderService orders) {
        this.estates = estates;
        this.usage = usage;
        this.orders = orders;
    }

    /** A file server with its fronts and pools. */
    record ServerView(FileServer server, List<BayPicture> fronts, long unclaimed, List<PoolLine> pools) {}

    record PoolLine(Pool pool, ByteLedger ledger, Bytes usable, long volumes) {}

    record VolumeLine(Volume volume, Bytes used, int bar) {}

    @GetMapping("/build")
    String build(@ModelAttribute("scope") Scope scope, Model model) {
        Estate estate = estates.load();
        Usage held = usage.load();
        model.addAttribute(
                "servers",
                estate.servers().values().stream()
                        .filter(s -> scope.server().isEmpty() || scope.server().equals(s.name()))
                        .map(s -> server(estate, held, s, scope))
                        .toList());
        model.addAttribute(
                "volumes",
                estate.volumes().values().stream()
                        .filter(v -> scope.covers(estate, v))
                        .map(v -> line(held, v))
                        .toList());
        return "build";
    }

    private static VolumeLine line(Usage held, Volume volume) {
        Bytes used = held.of(volume.name()).used();
        return new VolumeLine(volume, used, (int) Math.min(80, Math.round(used.shareOf(volume.size()) * 80)));
    }

    private static ServerView server(Estate estate, Usage held, FileServer server, Scope scope) {
        List<PoolLine> pools = estate.pools().values().stream()
                .filter(p -> p.server().equals(server.name()) && scope.covers(p))
                .map(p -> new PoolLine(
                        p,
                        Ledgers.ofPool(estate, held, p),
                        Ledgers.usable(estate, p),
                        estate.volumesOn(p.name()).count()))
                .toList();
        long unclaimed = unclaimed(estate, server.name()).size();
        return new ServerView(server, BayPicture.of(estate, server.name()), unclaimed, pools);
    }

    private static List<Drive> unclaimed(Estate estate, String server) {
        return estate.drivesOf(server)
                .filter(d -> d.state() == DriveState.UNCLAIMED)
                .sorted(Comparator.comparing(Drive::enclosure).thenComparing(Drive::bay))
                .toList();
    }

    @GetMapping("/build/pools/{name}")
    String pool(@PathVariable String name, Model model) {
        Estate estate = estates.load();
        Usage held = usage.load();
        Pool pool = Optional.ofNullable(estate.pools().get(name)).orElseThrow(() -> new NotFound("pool", name));
        ByteLedger ledger = Ledgers.ofPool(estate, held, pool);
        model.addAttribute("pool", pool);
        model.addAttribute("ledger", LedgerPicture.draw(ledger, ledger.label(), BAR));
        model.addAttribute("usable", Ledgers.usable(estate, pool));
        model.addAttribute(
                "volumes", estate.volumesOn(name).map(v -> line(held, v)).toList());
        model.addAttribute("members", estate.drives(pool.members()));
        if (!pool.isReservation()) {
            model.addAttribute("layout", Ledgers.layoutOf(estate, pool));
            model.addAttribute("byLabels", byLabels(estate, pool));
        }
        return "pool";
    }

    /** What the layout would give if the drives held exactly what their labels say. */
    private static Bytes byLabels(Estate estate, Pool pool) {
        return Ledgers.layoutOf(
                        estate,
                        new Pool(
                                pool.name(),
                                pool.server(),
                                pool.layout(),
                                pool.members(),
                                pool.spares(),
                                Bytes.ZERO,
                                Bytes.ZERO,
                                Bytes.ZERO,
                                Bytes.ZERO))
                .data();
    }

    @GetMapping("/build/volumes/{name}")
    String volume(@PathVariable String name, Model model) {
        Estate estate = estates.load();
        Volume volume = Optional.ofNullable(estate.volumes().get(name)).orElseThrow(() -> new NotFound("volume", name));
        Usage.Held held = usage.load().of(name);
        model.addAttribute("volume", volume);
        model.addAttribute("held", held);
        model.addAttribute("left", volume.size().minusOrZero(held.used()));
        model.addAttribute(
                "poolFree",
                Ledgers.ofPool(estate, usage.load(), estate.pools().get(volume.pool()))
                        .free());
        model.addAttribute("shares", estate.sharesOn(name).toList());
        return "volume";
    }

    // --- composing a pool ---

    @GetMapping("/build/new/pool")
    String composePool(
            @RequestParam(defaultValue = "") String server,
            @RequestParam(required = false) List<String> drives,
            @ModelAttribute("scope") Scope scope,
            Model model) {
        Estate estate = estates.load();
        String wanted = server.isEmpty() ? scope.server() : server;
        String chosen = wanted.isEmpty() || unclaimed(estate, wanted).isEmpty() ? withUnclaimed(estate) : wanted;
        PoolForm form = new PoolForm("", chosen, drives, null, 0, false);
        return showPool(form, "", model);
    }

    private static String withUnclaimed(Estate estate) {
        return estate.servers().keySet().stream()
                .max(Comparator.comparingInt(s -> unclaimed(estate, s).size()))
                .orElse("");
    }

    private String showPool(PoolForm form, String problem, Model model) {
        Estate estate = estates.load();
        List<Drive> free = unclaimed(estate, form.server());
        model.addAttribute("form", form);
        model.addAttribute("problem", problem);
        model.addAttribute("free", free);
        model.addAttribute(
                "choices",
                estate.servers().keySet().stream()
                        .filter(s -> !unclaimed(estate, s).isEmpty())
                        .toList());
        model.addAttribute(
                "largest", free.stream().mapToLong(d -> d.label().value()).max().orElse(1));
        compare(form, model);
        return "pool-new";
    }

    /** Recomputed whenever the choice changes. */
    @PostMapping("/build/compare")
    String compareAgain(@ModelAttribute PoolForm form, Model model) {
        model.addAttribute("form", form);
        compare(form, model);
        return "pool-new :: consequence";
    }

    private void compare(PoolForm form, Model model) {
        Estate estate = estates.load();
        List<Drive> drives = form.drives().stream()
                .map(estate.drives()::get)
                .filter(java.util.Objects::nonNull)
                .toList();
        Map<String, Long> sizes = new LinkedHashMap<>();
        model.addAttribute("chosenDrives", drives);
        model.addAttribute("sizes", sizes);
        if (drives.isEmpty()) {
            return;
        }
        drives.stream()
                .sorted(Comparator.comparing(Drive::label))
                .forEach(d -> sizes.merge(d.label().value() / 1_000_000_000_000L + " TB", 1L, Long::sum));
        try {
            LayoutQuestion question = LayoutQuestion.withDefaults(
                    drives.stream().map(Drive::label).toList(),
                    form.spares(),
                    drives.getFirst().kind().rates());
            model.addAttribute("comparison", Comparison.of(question, form.layoutOrDefault()));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("comparisonProblem", refused.getMessage());
        }
    }

    @PostMapping("/build/new/pool")
    String addPool(@AuthenticationPrincipal Someone me, @ModelAttribute PoolForm form, Model model) {
        try {
            Layout layout = Optional.ofNullable(form.layout())
                    .orElseThrow(() -> new IllegalArgumentException("no layout is chosen, choose one of the table"));
            orders.add(
                    me.getName(),
                    new Change.ComposePool(
                            form.name(), form.server(), form.drives(), layout, form.spares(), form.surfaceCheck()));
            return "redirect:/build?scope=" + form.server();
        } catch (IllegalArgumentException refused) {
            return showPool(form, refused.getMessage(), model);
        }
    }

    // --- composing a volume ---

    @GetMapping("/build/new/volume")
    String composeVolume(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String pool,
            @ModelAttribute("scope") Scope scope,
            Model model) {
        Estate after = orders.withDraft(me.getName());
        String chosen = !pool.isEmpty()
                ? pool
                : !scope.pool().isEmpty()
                        ? scope.pool()
                        : after.pools().keySet().stream().findFirst().orElse("");
        VolumeForm form = new VolumeForm("", chosen, "1 TiB", true, Volume.DEFAULT_BLOCK, Volume.DEFAULT_ALARM);
        return showVolume(me, form, "", model);
    }

    private String showVolume(Someone me, VolumeForm form, String problem, Model model) {
        Estate estate = orders.withDraft(me.getName());
        Usage held = usage.load();
        List<PoolLine> pools = new ArrayList<>();
        estate.pools()
                .values()
                .forEach(p -> pools.add(new PoolLine(
                        p,
                        Ledgers.ofPool(estate, held, p),
                        Ledgers.usable(estate, p),
                        estate.volumesOn(p.name()).count())));
        model.addAttribute("form", form);
        model.addAttribute("problem", problem);
        model.addAttribute("pools", pools);
        previewVolume(estate, held, form, model);
        return "volume-new";
    }

    @PostMapping("/build/new/volume/preview")
    String preview(@AuthenticationPrincipal Someone me, @ModelAttribute VolumeForm form, Model model) {
        model.addAttribute("form", form);
        previewVolume(orders.withDraft(me.getName()), usage.load(), form, model);
        return "volume-new :: consequence";
    }

    private static void previewVolume(Estate estate, Usage held, VolumeForm form, Model model) {
        Pool pool = estate.pools().get(form.pool());
        if (pool == null) {
            return;
        }
        ByteLedger before = Ledgers.ofPool(estate, held, pool);
        model.addAttribute("before", LedgerPicture.draw(before, before.label(), 420));
        model.addAttribute("kinds", List.of(ByteKind.LIVE, ByteKind.SNAPSHOTS, ByteKind.PROMISED, ByteKind.FREE));
        try {
            Volume volume = form.volume(form.name().isBlank() ? "unnamed" : form.name());
            Estate with = estate.withVolume(volume);
            boolean fits = volume.thin() || !volume.size().isMoreThan(before.free());
            if (fits) {
                ByteLedger after = Ledgers.ofPool(with, held, pool);
                model.addAttribute("after", LedgerPicture.draw(after, after.label(), 420));
            } else {
                model.addAttribute(
                        "previewProblem",
                        "A thick volume of " + form.size() + " does not fit: at most "
                                + before.free().value() + " bytes are free; thin would be possible");
            }
        } catch (IllegalArgumentException refused) {
            model.addAttribute("previewProblem", refused.getMessage());
        }
    }

    @PostMapping("/build/new/volume")
    String addVolume(@AuthenticationPrincipal Someone me, @ModelAttribute VolumeForm form, Model model) {
        try {
            orders.add(me.getName(), new Change.ComposeVolume(form.volume(form.name())));
            return "redirect:/build?scope=" + form.pool();
        } catch (IllegalArgumentException refused) {
            return showVolume(me, form, refused.getMessage(), model);
        }
    }

    /** What was typed about a pool. */
    record PoolForm(
            String name,
            String server,
            List<String> drives,
            @org.jspecify.annotations.Nullable Layout layout,
            Integer spares,
            Boolean surfaceCheck) {
        PoolForm {
            spares = spares == null ? 0 : spares;
            surfaceCheck = Boolean.TRUE.equals(surfaceCheck);
            name = name == null ? "" : name.strip();
            server = server == null ? "" : server;
            drives = drives == null ? List.of() : List.copyOf(drives);
        }

        Layout layoutOrDefault() {
            return layout == null ? Layout.TERRACED_2 : layout;
        }
    }

    /** What was typed about a volume. */
    record VolumeForm(String name, String pool, String size, Boolean thin, Integer blockSize, Integer alarmPercent) {
        VolumeForm {
            thin = Boolean.TRUE.equals(thin);
            blockSize = blockSize == null ? Volume.DEFAULT_BLOCK : blockSize;
            alarmPercent = alarmPercent == null ? Volume.DEFAULT_ALARM : alarmPercent;
            name = name == null ? "" : name.strip();
        }

        Volume volume(String named) {
            return new Volume(
                    named,
                    pool,
                    SizeText.parse("volume size", size, Volume.LEAST, Volume.MOST),
                    thin,
                    blockSize,
                    alarmPercent);
        }
    }
}
