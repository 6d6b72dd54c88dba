package org.vastshelf.app.replica;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.PairChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.ReplicaPair.Mode;

/** All replica pairs, and how another is made. */
@Page
class PairsController {

    static final String HERE = "/protect/pairs";

    private final Copies copies;
    private final EstateStore estates;
    private final OrderService orders;

    PairsController(Copies copies, EstateStore estates, OrderService orders) {
        this.copies = copies;
        this.estates = estates;
        this.orders = orders;
    }

    @GetMapping(HERE)
    String list(@AuthenticationPrincipal Someone me, HttpServletRequest request, Model model) {
        Figures fmt = Figures.of(model);
        Estate estate = estates.load();
        Map<String, Copies.Standing> standings = copies.all();
        model.addAttribute(
                "pairs",
                Listing.of(
                                request,
                                List.copyOf(estate.all(Kinds.PAIR).values()),
                                pair -> pair.volume() + " " + pair.copy(),
                                new Listing.Column<>("volume", Comparator.comparing(ReplicaPair::volume)))
                        .map(pair -> PairRow.of(fmt, estate, pair, Optional.ofNullable(standings.get(pair.volume())))));
        model.addAttribute("composes", me.isAdministrator());
        Typed.Fields fields = Typed.of(model).at(HERE);
        model.addAttribute(
                "make",
                Form.of(
                                HERE,
                                "Keep a copy of a volume elsewhere",
                                fields.select(
                                                "volume",
                                                "Volume",
                                                estate.volumes().keySet(),
                                                "")
                                        .width("w-44"),
                                fields.select("pool", "On pool", estate.pools().keySet(), "")
                                        .width("w-32"),
                                fields.text("copy", "Called", "")
                                        .with("placeholder", "copy-of-film")
                                        .width("w-44"),
                                fields.select(
                                                "mode",
                                                "Kept up",
                                                Arrays.asList(Mode.values()),
                                                Mode::name,
                                                Mode::title,
                                                Mode.BY_INTERVAL)
                                        .width("w-36"),
                                fields.number("minutes", "Every so many minutes", 60)
                                        .between(ReplicaPair.SHORTEST, ReplicaPair.LONGEST)
                                        .width("w-44"),
                                fields.text("host", "Name for clients", "")
                                        .with("placeholder", "film.larkmoor.example")
                                        .hint("moves with the share")
                                        .width("w-56"),
                                fields.text("address", "Its address", "")
                                        .with("placeholder", "10.20.1.62")
                                        .width("w-36"),
                                fields.tick("refuses", "refuse writes while a copy in step does not answer", false))
                        .button("Add to the draft"));
        return "pairs";
    }

    @PostMapping(HERE)
    String make(
            @AuthenticationPrincipal Someone me,
            @RequestParam String volume,
            @RequestParam String pool,
            @RequestParam String copy,
            @RequestParam Mode mode,
            @RequestParam(defaultValue = "0") int minutes,
            @RequestParam String host,
            @RequestParam String address,
            @RequestParam(defaultValue = "false") boolean refuses,
            HttpServletRequest request,
            Model model) {
        try {
            ReplicaPair pair = new ReplicaPair(
                    volume, copy.strip(), mode, minutes, refuses, host.strip(), address.strip(), false, false);
            orders.add(me.getName(), new PairChange.MakePair(pair, pool));
            return "redirect:" + HERE;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return list(me, request, model);
        }
    }
}
