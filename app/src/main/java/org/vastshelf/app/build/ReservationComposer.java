package org.vastshelf.app.build;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.kit.WholeNumbers;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Paces;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;
import org.vastshelf.core.volume.PaceBudget;

/** A pool at a managed service: what each class would take for a wanted size and throughput, with the arithmetic. */
@Page
class ReservationComposer {

    private static final Bytes MOST = Bytes.tib(4_096);

    private final EstateStore estates;
    private final OrderService orders;

    ReservationComposer(EstateStore estates, OrderService orders) {
        this.estates = estates;
        this.orders = orders;
    }

    /** What was typed. */
    record Wanted(
            String name,
            String server,
            String size,
            String mibps,
            @Nullable PaceClass pace) {
        Wanted {
            name = name == null ? "" : name.strip();
            server = server == null ? "" : server;
            size = size == null ? "10 TiB" : size;
            mibps = mibps == null ? "300" : mibps;
        }

        List<PaceBudget.Offer> offers(Paces paces) {
            return PaceBudget.offers(
                    paces,
                    AtField.read("size", () -> SizeText.parse("size", size, Bytes.gib(1), MOST)),
                    AtField.read("mibps", () -> WholeNumbers.whole("throughput", mibps)));
        }
    }

    @GetMapping("/build/new/reservation")
    String compose(@ModelAttribute Wanted form, Model model) {
        return show(form, model);
    }

    @PostMapping("/build/new/reservation/preview")
    String preview(@ModelAttribute Wanted form, Model model) {
        show(form, model);
        return "reservation-new :: consequence";
    }

    private String show(Wanted form, Model model) {
        Typed.Fields fields = Typed.of(model).at("/build/new/reservation");
        List<String> managed = estates.load().servers().values().stream()
                .filter(FileServer::managed)
                .map(FileServer::name)
                .toList();
        if (!managed.isEmpty()) {
            model.addAttribute(
                    "page",
                    Form.of(
                            fields.action(),
                            "",
                            fields.first(fields.text("name", "Name of the pool", form.name())),
                            fields.select("server", "Service", managed, form.server()),
                            fields.text("size", "Wanted size", form.size()),
                            fields.text("mibps", "Wanted throughput, MiB/s", form.mibps())));
        }
        try {
            model.addAttribute("offers", rows(Figures.of(model), paces(form), form));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("offersProblem", refused.getMessage());
        }
        return "reservation-new";
    }

    /** Those of the service that is chosen, or of the first. */
    private Paces paces(Wanted form) {
        return estates.load().servers().values().stream()
                .filter(FileServer::managed)
                .filter(server -> form.server().isEmpty() || server.name().equals(form.server()))
                .findFirst()
                .map(FileServer::paces)
                .orElse(Paces.USUAL);
    }

    /** What a class would take and cost. */
    record Row(PaceClass pace, boolean chosen, String tebibytes, String gives, String cost, String how) {}

    private static List<Row> rows(Figures fmt, Paces paces, Wanted form) {
        List<PaceBudget.Offer> offers = form.offers(paces);
        return offers.stream()
                .map(o -> row(fmt, o, paces.of(o.paceClass()), form, o == offers.getFirst()))
                .toList();
    }

    private static Row row(Figures fmt, PaceBudget.Offer offer, Paces.Terms terms, Wanted form, boolean cheapest) {
        PaceClass pace = offer.paceClass();
        return new Row(
                pace,
                pace == form.pace(),
                fmt.count(offer.tebibytes()),
                fmt.count(offer.tebibytes() * terms.mibps()),
                fmt.money(offer.cents()),
                offer.tebibytes() + " × " + fmt.money(terms.cents()) + "; " + terms.mibps() + " MiB/s for each TiB"
                        + (cheapest ? "; the cheapest" : ""));
    }

    @PostMapping("/build/new/reservation")
    String add(@AuthenticationPrincipal Someone me, @ModelAttribute Wanted form, Model model) {
        try {
            if (form.pace() == null) {
                throw new IllegalArgumentException("no class is chosen, choose one of the table");
            }
            long tebibytes = form.offers(paces(form)).stream()
                    .filter(offer -> offer.paceClass() == form.pace())
                    .findFirst()
                    .orElseThrow()
                    .tebibytes();
            orders.add(
                    me.getName(),
                    new PoolChange.ReservePool(form.name(), form.server(), Bytes.tib(tebibytes), form.pace()));
            return "redirect:/build?scope=" + form.server();
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return show(form, model);
        }
    }
}
