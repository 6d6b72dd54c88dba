package org.vastshelf.app.desk;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.content.Downloads;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.unit.Bytes;

/** The stand-in workstation: act on a share as a person, and see what the gate says. */
@Page
class DeskController {

    private static final int MOST_FOUND = 20;

    private final DeskPage page;
    private final FileRoad road;
    private final EstateStore estates;
    private final Directory directory;
    private final Downloads downloads;

    DeskController(DeskPage page, FileRoad road, EstateStore estates, Directory directory, Downloads downloads) {
        this.page = page;
        this.road = road;
        this.estates = estates;
        this.directory = directory;
        this.downloads = downloads;
    }

    @GetMapping("/desk")
    String desk(@AuthenticationPrincipal Someone me, Seat asked, Model model) {
        Estate estate = estates.load();
        String who = asked.person().isEmpty() ? (me.mayRun() ? "suki" : me.getName()) : asked.person();
        String where =
                asked.share().isEmpty() ? usual(estate, directory.person(who).orElse(me.person())) : asked.share();
        Seat seat = asked.at(directory.person(who).isPresent() ? who : me.getName(), where);
        return page.show(me, seat, null, model);
    }

    /** The first share on which somebody may do most. */
    private static String usual(Estate estate, Person person) {
        return estate.shares().values().stream()
                .max(Comparator.comparingInt((Share s) -> s.access().stream()
                                .filter(rule -> rule.appliesTo(person) && rule.subject() != AccessRule.Subject.EVERYONE)
                                .mapToInt(rule -> rule.level().ordinal() + 1)
                                .max()
                                .orElse(0))
                        .thenComparing(Share::name, Comparator.reverseOrder()))
                .map(Share::name)
                .orElse("");
    }

    /** People and shares whose names hold a text, to choose from while it is typed. */
    @GetMapping("/desk/choices")
    String choices(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String person,
            @RequestParam(defaultValue = "") String share,
            Model model) {
        String who = person.strip().toLowerCase(Locale.ROOT);
        String where = share.strip().toLowerCase(Locale.ROOT);
        model.addAttribute(
                "foundPeople",
                !me.mayRun() || who.isEmpty()
                        ? List.of()
                        : directory.people().stream()
                                .filter(p -> p.uid().contains(who)
                                        || p.name().toLowerCase(Locale.ROOT).contains(who))
                                .limit(MOST_FOUND)
                                .toList());
        model.addAttribute(
                "foundShares",
                where.isEmpty()
                        ? List.of()
                        : page.within(me, estates.load(), me.getName()).stream()
                                .filter(name -> name.toLowerCase(Locale.ROOT).contains(where))
                                .limit(MOST_FOUND)
                                .toList());
        return "desk :: choices";
    }

    /** Reads a file through the gate and hands it out, whole or from a place on. */
    @GetMapping("/desk/contents")
    Object contents(
            @AuthenticationPrincipal Someone me,
            Seat seat,
            @RequestParam String name,
            @RequestHeader(name = HttpHeaders.IF_RANGE, defaultValue = "") String onlyIf,
            Model model) {
        DeskPage.requireMay(me, seat.person());
        try {
            Outcome result = road.perform(new FileOperation(
                    Kind.READ,
                    seat.person(),
                    seat.share(),
                    seat.inside("name", name),
                    Bytes.ZERO,
                    Workstations.of(share(estates.load(), seat), seat.person())));
            return result.contents().isPresent()
                    ? downloads.of(name, result.contents().get(), onlyIf)
                    : page.show(me, seat, result, model);
        } catch (IllegalArgumentException | NotThere refused) {
            Typed.refuse(model, refused);
            return page.show(me, seat, null, model);
        }
    }

    static Share share(Estate estate, Seat seat) {
        return Optional.ofNullable(estate.shares().get(seat.share()))
                .orElseThrow(() -> new NotThere("There is no share '" + seat.share() + "'"));
    }
}
