package org.vastshelf.app.desk;

import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentKind;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;

/** Makes the page of the desk: where one sits, what is there, what the gate said. */
@Component
class DeskPage {

    private static final int SHOWN = 200;

    private final EstateStore estates;
    private final DeskListing listings;
    private final CatalogueStore catalogues;
    private final ContentKind kinds;
    private final Directory directory;

    DeskPage(
            EstateStore estates,
            DeskListing listings,
            CatalogueStore catalogues,
            ContentKind kinds,
            Directory directory) {
        this.estates = estates;
        this.listings = listings;
        this.catalogues = catalogues;
        this.kinds = kinds;
        this.directory = directory;
    }

    static void requireMay(Someone me, String person) {
        if (!me.actsAs(person)) {
            throw new AccessDeniedException("only administrators and operators act as somebody else");
        }
    }

    /** Carries something out and shows what became of it; what was refused before it began is told at its field. */
    String answer(Someone me, Seat seat, Supplier<Outcome> act, Model model) {
        requireMay(me, seat.person());
        try {
            Outcome outcome = act.get();
            boolean gone = outcome.allowed() && !outcome.operation().kind().saves();
            return show(me, gone ? seat.choosing("") : seat, outcome, model);
        } catch (IllegalArgumentException | NotThere | Taken | FarAway refused) {
            Typed.refuse(model, refused);
            return show(me, seat, null, model);
        }
    }

    String show(Someone me, Seat seat, @Nullable Outcome result, Model model) {
        requireMay(me, seat.person());
        Estate estate = estates.load();
        model.addAttribute("seat", seat);
        if (result != null) {
            model.addAttribute("result", AnswerView.of(Figures.of(model), result));
        }
        List<Person> people = me.mayRun()
                ? directory.people()
                : List.of(directory.person(me.getName()).orElseThrow());
        List<String> shares = within(me, estate, seat.person());
        model.addAttribute("page", Chooser.of(Typed.of(model), seat, people, shares));
        Share share = estate.shares().get(seat.share());
        if (share != null) {
            show(share, seat, shares, model);
        }
        return "desk";
    }

    private void show(Share share, Seat seat, List<String> shares, Model model) {
        FilePath path = path(seat.path()).orElse(FilePath.ROOT);
        DeskListing.Listing listing =
                listings.of(share, seat.person(), path, DeskListing.From.parse(seat.after()), SHOWN);
        model.addAttribute("here", DeskView.of(Figures.of(model), path, seat, listing));
        if (listing.mayRead() && !seat.chosen().isEmpty()) {
            chosen(share, seat, path, Figures.of(model), ChosenView.Forms.of(Typed.of(model), seat, path, shares))
                    .ifPresent(view -> model.addAttribute("chosen", view));
        }
    }

    private Optional<ChosenView> chosen(Share share, Seat seat, FilePath path, Figures fmt, ChosenView.Forms forms) {
        Optional<CatalogueStore.Catalogue> catalogue = catalogues.find(share.name());
        if (catalogue.isEmpty() || path(seat.path()).isEmpty()) {
            return Optional.empty();
        }
        int no = catalogue.get().no();
        FilePath one = path.child(seat.chosen());
        if (share.ownership(one, true, seat.person()) == Share.Ownership.OTHERS) {
            return Optional.empty();
        }
        return catalogues
                .folder(no, PathBytes.of(one.text()))
                .map(folder -> ChosenView.of(fmt, folder, forms))
                .or(() -> catalogues
                        .folder(no, PathBytes.of(path.text()))
                        .flatMap(folder -> file(no, folder, seat.chosen(), fmt, forms)));
    }

    private Optional<ChosenView> file(
            int catalogue, CatalogueStore.FolderRow folder, String name, Figures fmt, ChosenView.Forms forms) {
        byte[] bytes = PathBytes.parse(name);
        return catalogues
                .file(catalogue, folder.no(), bytes)
                .flatMap(row -> catalogues
                        .contents(catalogue, folder.no(), bytes)
                        .map(contents -> ChosenView.of(fmt, row, contents, kinds.of(contents), forms)));
    }

    /** Shares that somebody can enter; who runs the estate sees all of them, to try what others meet. */
    List<String> within(Someone me, Estate estate, String uid) {
        Optional<Person> person = directory.person(uid);
        return estate.shares().values().stream()
                .filter(share -> me.mayRun()
                        || person.filter(p -> share.access().stream().anyMatch(rule -> rule.appliesTo(p)))
                                .isPresent())
                .map(Share::name)
                .toList();
    }

    private static Optional<FilePath> path(String text) {
        try {
            return Optional.of(new FilePath(text));
        } catch (IllegalArgumentException none) {
            return Optional.empty();
        }
    }
}
