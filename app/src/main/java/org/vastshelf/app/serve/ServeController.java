package org.vastshelf.app.serve;

import jakarta.servlet.http.HttpServletRequest;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.ShareChange;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Cidr;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.ExportRule;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.serve.MountLines;

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

    record ShareLine(Share share, String server, boolean reachable, long files, long bytes) {}

    @GetMapping("/serve")
    String serve(
            @AuthenticationPrincipal Someone me,
            @ModelAttribute("scope") Scope scope,
            HttpServletRequest request,
            Model model) {
        Estate estate = estates.load();
        List<Share> seen = estate.shares().values().stream()
                .filter(me::sees)
                .filter(s -> scope.covers(estate, estate.volumes().get(s.volume())))
                .toList();
        Map<String, CatalogueStore.Catalogue> held =
                catalogues.named(seen.stream().map(Share::name).toList());
        List<ShareLine> lines =
                seen.stream().map(s -> line(estate, s, held.get(s.name()))).toList();
        model.addAttribute(
                "shares",
                Listing.of(
                        request,
                        lines,
                        line -> line.share.name() + " " + line.server,
                        new Listing.Column<>("share", Comparator.comparing(l -> l.share.name())),
                        new Listing.Column<>("server", Comparator.comparing(ShareLine::server)),
                        new Listing.Column<>("files", Comparator.comparing(ShareLine::files)),
                        new Listing.Column<>("bytes", Comparator.comparing(ShareLine::bytes))));
        model.addAttribute("brought", me.readsAll() ? catalogues.broughtIn() : List.of());
        return "serve";
    }

    private static ShareLine line(Estate estate, Share share, CatalogueStore.@Nullable Catalogue catalogue) {
        Optional<FileServer> server = estate.serverOf(share);
        boolean reachable = server.filter(FileServer::isReachable).isPresent()
                && (share.smb() || !share.exports().isEmpty());
        return new ShareLine(
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
        model.addAttribute("share", share);
        model.addAttribute("server", server);
        model.addAttribute("mountLines", MountLines.of(share, server, me.getName()));
        model.addAttribute("limits", estate.limitsOn(name).toList());
        model.addAttribute("volume", estate.volumes().get(share.volume()));
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
        return show(me, form, "", model);
    }

    private String show(Someone me, ShareForm form, String problem, Model model) {
        Estate estate = orders.withDraft(me.getName());
        model.addAttribute("form", form);
        model.addAttribute("problem", problem);
        model.addAttribute("volumes", estate.volumes().values());
        model.addAttribute(
                "served", estate.shares().values().stream().map(Share::volume).toList());
        model.addAttribute(
                "groups",
                directory.people().stream()
                        .map(Person::groups)
                        .flatMap(java.util.Set::stream)
                        .distinct()
                        .sorted()
                        .toList());
        return "share-new";
    }

    @PostMapping("/serve/new")
    String add(@AuthenticationPrincipal Someone me, @ModelAttribute ShareForm form, Model model) {
        try {
            orders.add(me.getName(), new ShareChange.OpenShare(form.share(directory)));
            return "redirect:/serve";
        } catch (IllegalArgumentException refused) {
            return show(me, form, refused.getMessage(), model);
        }
    }

    @PostMapping("/serve/shares/{name}/close")
    String close(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        orders.add(me.getName(), new ShareChange.CloseShare(name));
        return "redirect:/serve";
    }

    /**
     * What was typed about a share.
     *
     * @param access lines such as {@code group education-film write}, {@code suki read}, {@code everyone read}
     * @param exports lines such as {@code 10.20.0.0/16 write}
     */
    record ShareForm(
            String name,
            String volume,
            Boolean smb,
            Boolean nfs,
            Boolean hiddenEntries,
            String access,
            String exports,
            String ownFolders) {
        ShareForm {
            ownFolders = ownFolders == null ? "" : ownFolders.strip();
            smb = Boolean.TRUE.equals(smb);
            nfs = Boolean.TRUE.equals(nfs);
            hiddenEntries = Boolean.TRUE.equals(hiddenEntries);
            name = name == null ? "" : name.strip();
            volume = volume == null ? "" : volume;
            access = access == null ? "" : access;
            exports = exports == null ? "" : exports;
        }

        static ShareForm of(Share share) {
            String access = String.join(
                    "\n", share.access().stream().map(ShareForm::text).toList());
            String exports = String.join(
                    "\n",
                    share.exports().stream()
                            .map(e -> e.clients().text() + (e.mayWrite() ? " write" : " read"))
                            .toList());
            return new ShareForm(
                    share.name(),
                    share.volume(),
                    share.smb(),
                    share.nfs(),
                    share.hiddenEntries(),
                    access,
                    exports,
                    share.ownFolders().map(FilePath::text).orElse(""));
        }

        private static String text(AccessRule rule) {
            String level = rule.level().name().toLowerCase(Locale.ROOT);
            return switch (rule.subject()) {
                case EVERYONE -> "everyone " + level;
                case GROUP -> "group " + rule.name() + " " + level;
                case PERSON -> rule.name() + " " + level;
            };
        }

        Share share(Directory directory) {
            List<AccessRule> rules = new ArrayList<>();
            access.lines().map(String::strip).filter(l -> !l.isEmpty()).forEach(l -> rules.add(rule(l, directory)));
            List<ExportRule> clients = new ArrayList<>();
            exports.lines().map(String::strip).filter(l -> !l.isEmpty()).forEach(l -> clients.add(export(l)));
            return new Share(name, volume, smb, nfs, hiddenEntries, rules, clients, own());
        }

        private Optional<FilePath> own() {
            return ownFolders.isEmpty() ? Optional.empty() : Optional.of(new FilePath(ownFolders));
        }

        private static AccessRule rule(String line, Directory directory) {
            String[] words = line.split("\\s+");
            boolean group = words[0].equals("group");
            if (words.length != (group ? 3 : 2)) {
                throw new IllegalArgumentException("access line is '" + shorten(line)
                        + "', must be like 'group education-film write', 'suki read' or 'everyone read'");
            }
            String name = words[group ? 1 : 0];
            AccessRule.Level level = level(words[words.length - 1]);
            if (!group && name.equals("everyone")) {
                return new AccessRule(AccessRule.Subject.EVERYONE, "", level);
            }
            boolean known = group
                    ? directory.people().stream().anyMatch(p -> p.groups().contains(name))
                    : directory.person(name).isPresent();
            if (!known) {
                throw new IllegalArgumentException(
                        (group ? "There is no group '" : "There is nobody '") + shorten(name) + "' in the directory");
            }
            return new AccessRule(group ? AccessRule.Subject.GROUP : AccessRule.Subject.PERSON, name, level);
        }

        private static AccessRule.Level level(String word) {
            try {
                return AccessRule.Level.valueOf(word.toUpperCase(Locale.ROOT));
            } catch (IllegalArgumentException none) {
                throw new IllegalArgumentException(
                        "access level is '" + shorten(word) + "', must be read, write or own");
            }
        }

        private static ExportRule export(String line) {
            String[] words = line.split("\\s+");
            boolean write = words.length == 2 && words[1].equals("write");
            if (words.length > 2 || words.length == 2 && !write && !words[1].equals("read")) {
                throw new IllegalArgumentException(
                        "export line is '" + shorten(line) + "', must be like '10.20.0.0/16 write'");
            }
            return new ExportRule(new Cidr(words[0]), write);
        }

        private static String shorten(String text) {
            return text.length() <= 60 ? text : text.substring(0, 60) + "…";
        }
    }
}
