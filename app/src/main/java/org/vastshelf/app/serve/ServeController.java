package org.vastshelf.app.serve;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.ShareChange;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/** Shares: who reaches them, how, and with which line. */
@Page
class ServeController {

    private final EstateStore estates;
    private final CatalogueStore catalogues;
    private final OrderService orders;
    private final Directory directory;

    ServeController(EstateStore estates, CatalogueStore catalogues, OrderService orders, Directory directory) {
        this.estates = estates;
        this.catalogues = catalogues;
        this.orders = orders;
        this.directory = directory;
    }

    /** A share and what it holds. */
    record Held(Share share, String server, boolean reachable, long files, long bytes) {

        ShareRow row(Figures fmt) {
            return new ShareRow(
                    share.name(),
                    reachable ? Mark.fine("reachable") : Mark.act("no client"),
                    Stream.of(share.smb() ? "SMB" : "", share.nfs() ? "NFS" : "")
                            .filter(word -> !word.isEmpty())
                            .collect(Collectors.joining(" ")),
                    server,
                    fmt.count(files),
                    fmt.figure(fmt.key("share", share.name(), "bytes"), Bytes.of(bytes)),
                    share.access().stream().map(String::valueOf).collect(Collectors.joining(", ")));
        }
    }

    /** A share in a list. */
    record ShareRow(String name, Mark state, String over, String server, String files, Figure bytes, String access) {}

    /** A catalogue that was brought in. */
    record Brought(String name, String root, String files, String bytes) {}

    @GetMapping("/serve")
    String serve(
            @AuthenticationPrincipal Someone me,
            @ModelAttribute("scope") Scope scope,
            @ModelAttribute("fmt") Figures fmt,
            HttpServletRequest request,
            Model model) {
        Estate estate = estates.load();
        List<Share> seen = estate.shares().values().stream()
                .filter(me::sees)
                .filter(s -> scope.covers(estate, estate.volumes().get(s.volume())))
                .toList();
        Map<String, CatalogueStore.Catalogue> held =
                catalogues.named(seen.stream().map(Share::name).toList());
        List<Held> lines =
                seen.stream().map(s -> line(estate, s, held.get(s.name()))).toList();
        model.addAttribute(
                "shares",
                Listing.of(
                                request,
                                lines,
                                line -> line.share.name() + " " + line.server,
                                new Listing.Column<>("share", Comparator.comparing(l -> l.share.name())),
                                new Listing.Column<>("server", Comparator.comparing(Held::server)),
                                new Listing.Column<>("files", Comparator.comparing(Held::files)),
                                new Listing.Column<>("bytes", Comparator.comparing(Held::bytes)))
                        .map(line -> line.row(fmt)));
        model.addAttribute(
                "brought",
                !me.readsAll()
                        ? List.of()
                        : catalogues.broughtIn().stream()
                                .map(c -> new Brought(
                                        c.name(), c.root(), Counted.of(c.files(), "file"), fmt.size(c.bytes())))
                                .toList());
        return "serve";
    }

    private static Held line(Estate estate, Share share, CatalogueStore.@Nullable Catalogue catalogue) {
        Optional<FileServer> server = estate.serverOf(share);
        boolean reachable = server.filter(FileServer::isReachable).isPresent()
                && (share.smb() || !share.exports().isEmpty());
        return new Held(
                share,
                server.map(FileServer::name).orElse(""),
                reachable,
                catalogue == null ? 0 : catalogue.files(),
                catalogue == null ? 0 : catalogue.bytes());
    }

    @GetMapping("/serve/shares/{name}")
    String share(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        Estate estate = estates.load();
        Share share = Optional.ofNullable(estate.shares().get(name))
                .filter(me::sees)
                .orElseThrow(() -> new NotFound("share", name));
        FileServer server = estate.serverOf(share).orElseThrow();
        model.addAttribute(
                "page",
                ShareView.of(
                        share, server, estate.find(Kinds.PAIR, share.volume()), estate.limitsOn(name), me.getName()));
        return "share";
    }

    @GetMapping("/serve/new")
    String compose(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String volume,
            @RequestParam(defaultValue = "") String share,
            Model model) {
        Share present = estates.load().shares().get(share);
        ShareForm form =
                present == null ? new ShareForm(volume, volume, true, false, true, "", "", "") : ShareForm.of(present);
        return show(me, form, model);
    }

    private String show(Someone me, ShareForm form, Model model) {
        Typed.Fields fields = Typed.of(model).at("/serve/new");
        model.addAttribute("about", form.about(fields, orders.withDraft(me.getName())));
        model.addAttribute("reach", form.reach(fields, directory));
        return "share-new";
    }

    @PostMapping("/serve/new")
    String add(@AuthenticationPrincipal Someone me, @ModelAttribute ShareForm form, Model model) {
        try {
            orders.add(me.getName(), new ShareChange.OpenShare(form.share(directory)));
            return "redirect:/serve";
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return show(me, form, model);
        }
    }

    @PostMapping("/serve/shares/{name}/close")
    String close(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        orders.add(me.getName(), new ShareChange.CloseShare(name));
        return "redirect:/serve";
    }
}
