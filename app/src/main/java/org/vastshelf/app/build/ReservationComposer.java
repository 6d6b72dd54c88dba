package org.vastshelf.app.build;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.PaceClass;
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
    record Form(
            String name,
            String server,
            String size,
            String mibps,
            @Nullable PaceClass pace) {
        Form {
            name = name == null ? "" : name.strip();
            server = server == null ? "" : server;
            size = size == null ? "10 TiB" : size;
            mibps = mibps == null ? "300" : mibps;
        }

        List<PaceBudget.Offer> offers() {
            return PaceBudget.offers(
                    SizeText.parse("size", size, Bytes.gib(1), MOST), WholeNumbers.whole("throughput", mibps));
        }
    }

    @GetMapping("/build/new/reservation")
    String compose(@ModelAttribute Form form, Model model) {
        return show(form, "", model);
    }

    @PostMapping("/build/new/reservation/preview")
    String preview(@ModelAttribute Form form, Model model) {
        show(form, "", model);
        return "reservation-new :: consequence";
    }

    private String show(Form form, String problem, Model model) {
        model.addAttribute("form", form);
        model.addAttribute("problem", problem);
        model.addAttribute(
                "managed",
                estates.load().servers().values().stream()
                        .filter(FileServer::managed)
                        .map(FileServer::name)
                        .toList());
        try {
            model.addAttribute("offers", form.offers());
        } catch (IllegalArgumentException refused) {
            model.addAttribute("offersProblem", refused.getMessage());
        }
        return "reservation-new";
    }

    @PostMapping("/build/new/reservation")
    String add(@AuthenticationPrincipal Someone me, @ModelAttribute Form form, Model model) {
        try {
            if (form.pace() == null) {
                throw new IllegalArgumentException("no class is chosen, choose one of the table");
            }
            long tebibytes = form.offers().stream()
                    .filter(offer -> offer.paceClass() == form.pace())
                    .findFirst()
                    .orElseThrow()
                    .tebibytes();
            orders.add(
                    me.getName(),
                    new PoolChange.ReservePool(form.name(), form.server(), Bytes.tib(tebibytes), form.pace()));
            return "redirect:/build?scope=" + form.server();
        } catch (IllegalArgumentException refused) {
            return show(form, String.valueOf(refused.getMessage()), model);
        }
    }
}
