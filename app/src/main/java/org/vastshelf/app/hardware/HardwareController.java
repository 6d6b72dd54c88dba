package org.vastshelf.app.hardware;

import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.change.HardwareChange;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.failure.Mishap;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** Drives one by one, enclosures that come and go, restarts, and the stand-in bench. */
@Page
class HardwareController {

    private static final int EVENTS = 50;

    private final HardwareService hardware;
    private final HardwareEventStore events;
    private final OrderService orders;

    HardwareController(HardwareService hardware, HardwareEventStore events, OrderService orders) {
        this.hardware = hardware;
        this.events = events;
        this.orders = orders;
    }

    @GetMapping("/build/drives/{server}/{enclosure}/{bay}")
    String drive(@PathVariable String server, @PathVariable String enclosure, @PathVariable String bay, Model model) {
        String key = server + "/" + enclosure + "/" + bay;
        Estate estate = hardware.seenNow();
        Drive drive = Optional.ofNullable(estate.drives().get(key)).orElseThrow(() -> new NotFound("drive", key));
        model.addAttribute("page", DriveView.of(Figures.of(model), estate, drive));
        return "drive";
    }

    @PostMapping("/build/drives/remove")
    String remove(@AuthenticationPrincipal Someone me, @RequestParam String drive) {
        orders.add(me.getName(), new HardwareChange.RemoveDrives(List.of(drive)));
        return "redirect:/build/drives/" + drive;
    }

    @PostMapping("/build/locate")
    String locate(@RequestParam String drive, @RequestParam boolean on) {
        hardware.locate(drive, on);
        return "redirect:/build/drives/" + drive;
    }

    @PostMapping("/build/scrub")
    String scrub(@AuthenticationPrincipal Someone me, @RequestParam String pool, Model model) {
        try {
            hardware.scrub(pool, me.getName());
            return "redirect:/build/pools/" + pool;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return bench(List.of(), model);
        }
    }

    @PostMapping("/build/rescan")
    String rescan(@AuthenticationPrincipal Someone me, @RequestParam String server) {
        hardware.rescan(server, me.getName());
        return "redirect:/build?scope=" + server;
    }

    @PostMapping("/build/enclosures/add")
    String add(@AuthenticationPrincipal Someone me, @RequestParam String server, @RequestParam int number) {
        orders.add(me.getName(), new HardwareChange.AddEnclosure(server, number));
        return "redirect:/build?scope=" + server;
    }

    @PostMapping("/build/enclosures/remove")
    String remove(@AuthenticationPrincipal Someone me, @RequestParam String server, @RequestParam int number) {
        orders.add(me.getName(), new HardwareChange.RemoveEnclosure(server, number));
        return "redirect:/build?scope=" + server;
    }

    @PostMapping("/build/restart")
    String restart(@AuthenticationPrincipal Someone me, @RequestParam String server, @RequestParam int node) {
        orders.add(me.getName(), new HardwareChange.RestartNode(server, node));
        return "redirect:/build?scope=" + server;
    }

    record Wear(
            String kind,
            String drive,
            String server,
            Integer percent,
            String size,
            Boolean solid,
            String one,
            String other,
            Double mibps,
            Double millis,
            Double loss) {
        Wear {
            kind = kind == null ? "" : kind;
            drive = drive == null ? "" : drive;
            server = server == null ? "" : server;
            percent = percent == null ? 0 : percent;
            size = size == null ? "" : size;
            solid = Boolean.TRUE.equals(solid);
        }

        Mishap mishap() {
            return switch (kind) {
                case "fail" -> new Mishap.DriveFails(drive);
                case "ail" -> new Mishap.DriveAils(drive);
                case "pull" -> new Mishap.DrivePulled(drive);
                case "damage" -> new Mishap.BlocksDamaged(drive, percent);
                case "bring" ->
                    new Mishap.DriveBrought(
                            drive.strip(),
                            solid ? DriveKind.SOLID_STATE : DriveKind.SPINNING,
                            AtField.read(
                                    "size", () -> SizeText.parse("drive size", size, Bytes.of(1), Bytes.tib(1_024))));
                case "cut" -> new Mishap.PowerCut(server);
                case "back" -> new Mishap.PowerBack(server);
                case "load" -> new Mishap.ClientLoad(server, percent);
                case "link", "cut-link" ->
                    new Mishap.LinkChanges(
                            one,
                            other,
                            mibps == null ? 0 : mibps,
                            millis == null ? 0 : millis,
                            loss == null ? 0 : loss,
                            kind.equals("cut-link"));
                default ->
                    throw new IllegalArgumentException("kind is '" + kind
                            + "', must be fail, ail, pull, damage, bring, cut, back, load, link or cut-link");
            };
        }
    }

    @GetMapping("/build/bench")
    String bench(Model model) {
        return bench(List.of(), model);
    }

    @PostMapping("/build/bench")
    String happen(@AuthenticationPrincipal Someone me, @ModelAttribute Wear wear, Model model) {
        try {
            return bench(hardware.happen(wear.mishap(), me.getName()), model);
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return bench(List.of(), model);
        }
    }

    private String bench(List<String> told, Model model) {
        Estate estate = hardware.seenNow();
        model.addAttribute(
                "page",
                BenchView.of(
                        Figures.of(model),
                        Typed.of(model),
                        estate,
                        hardware.poolsWithDrives(),
                        told,
                        events.newest(EVENTS)));
        return "bench";
    }
}
