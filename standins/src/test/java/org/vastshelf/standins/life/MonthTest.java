package org.vastshelf.standins.life;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Sharing;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.standins.scenario.DemoEstate;

/** The demo's files and its last month, looked at as somebody would who wants to know whether they are true. */
class MonthTest {

    private static final long BEGIN = Ages.begin().toEpochDay() * 86_400;
    private static final List<Person> PEOPLE = DemoPeople.all();
    private static final Crew CREW = Crew.of(PEOPLE);
    private static final Estate ESTATE = DemoEstate.create();
    private static final Map<String, ShareLife> SHARES = shares();
    private static final Month MONTH = Month.of(CREW, SHARES, ESTATE);

    private static Map<String, ShareLife> shares() {
        Map<String, ShareLife> shares = new TreeMap<>();
        ESTATE.shares().keySet().forEach(share -> shares.put(share, ShareLife.of(share, CREW)));
        return shares;
    }

    private static List<LivingFile> files(String share) {
        return SHARES.get(share).files();
    }

    private static double share(long part, long whole) {
        return (double) part / whole;
    }

    @Test
    void files_have_the_sizes_of_their_kind_and_many_are_small() {
        long all = 0;
        long small = 0;
        for (ShareLife life : SHARES.values()) {
            for (LivingFile file : life.files()) {
                String name = file.name();
                if (name.endsWith(".jpg")) {
                    assertThat(file.bytes()).as(file.path()).isLessThan(50_000_000);
                } else if (name.endsWith(".odt")
                        && !Homes.HIDERS.contains(file.owner().uid())) {
                    assertThat(file.bytes()).as(file.path()).isLessThan(10_000_000);
                }
                all++;
                small += file.bytes() < 65_536 ? 1 : 0;
            }
        }
        assertThat(all).isBetween(220_000L, 320_000L);
        assertThat(share(small, all)).isBetween(0.3, 0.7);
        double mean = files("herbarium").stream()
                .filter(f -> f.name().endsWith(".tif"))
                .mapToLong(LivingFile::bytes)
                .average()
                .orElseThrow();
        assertThat(mean).isBetween(0.8e9, 1.1e9);
    }

    @Test
    void owners_are_people_who_may_save_there() {
        Map<String, Person> byUid = PEOPLE.stream().collect(Collectors.toMap(Person::uid, p -> p));
        SHARES.forEach((name, life) -> {
            Share share = ESTATE.shares().get(name);
            life.files().stream()
                    .map(f -> f.owner().uid())
                    .distinct()
                    .forEach(uid -> assertThat(share.access())
                            .as(uid + " on " + name)
                            .anyMatch(rule -> rule.level() != AccessRule.Level.READ && rule.appliesTo(byUid.get(uid))));
        });
        assertThat(files("homes"))
                .allMatch(f -> f.path().startsWith("/" + f.owner().uid() + "/"));
    }

    @Test
    void a_third_of_the_office_s_papers_are_copies() {
        Set<Contents> seen = new HashSet<>();
        List<LivingFile> papers = files("office").stream()
                .filter(f -> f.kind() == FileKind.DOCUMENT && f.folder().split("/").length < 5)
                .toList();
        long copies = papers.stream().filter(f -> !seen.add(f.contents())).count();
        assertThat(share(copies, papers.size())).isBetween(0.27, 0.4);
    }

    @Test
    void touched_up_scans_share_nearly_all_with_their_scan() {
        Map<String, LivingFile> byPath = new HashMap<>();
        files("herbarium").forEach(f -> byPath.put(f.path(), f));
        List<LivingFile> touched = files("herbarium").stream()
                .filter(f -> f.name().contains("touched-up"))
                .toList();
        assertThat(touched).hasSizeGreaterThan(2_000);
        for (LivingFile file : touched) {
            LivingFile scan = byPath.get(file.path().replace("-touched-up", ""));
            Sharing sharing = Sharing.of(List.of(scan.contents(), file.contents()));
            assertThat(share(sharing.shared(), file.bytes())).isGreaterThan(0.9);
        }
    }

    @Test
    void films_hide_under_the_names_of_papers_in_three_homes() {
        Set<String> homes = files("homes").stream()
                .filter(f -> f.kind() == FileKind.DOCUMENT && f.bytes() > 20_000_000)
                .map(f -> f.owner().uid())
                .collect(Collectors.toSet());
        assertThat(homes).containsExactlyInAnyOrderElementsOf(Homes.HIDERS);
    }

    @Test
    void suki_is_at_her_limit() {
        long held = files("homes").stream()
                .filter(f -> f.owner().uid().equals("suki"))
                .mapToLong(LivingFile::bytes)
                .sum();
        assertThat(150L * (1L << 30) - held).isEqualTo(4_096);
    }

    @Test
    void half_of_press_was_not_opened_for_three_years_and_a_hundred_thousand_readings_came_in_a_month() {
        long old = LocalDate.of(2023, 3, 2).toEpochDay() * 86_400;
        long cold = files("press").stream().filter(f -> f.accessed() < old).count();
        assertThat(share(cold, files("press").size())).isBetween(0.4, 0.65);
        assertThat(files("fieldlogs").stream().filter(f -> f.modified() >= BEGIN && f.bytes() < 10_000))
                .hasSizeGreaterThan(100_000);
    }

    @Test
    void each_deed_is_about_something_that_is_there_at_that_moment_or_was() {
        Map<String, Map<String, LivingFile>> byPath = new HashMap<>();
        SHARES.forEach((share, life) ->
                byPath.put(share, life.files().stream().collect(Collectors.toMap(LivingFile::path, f -> f))));
        Map<String, Set<String>> made = new HashMap<>();
        Instant before = Instant.EPOCH;
        for (Deed deed : MONTH.deeds()) {
            Instant at = Instant.EPOCH.plusNanos(deed.micros() * 1_000);
            assertThat(at).isAfterOrEqualTo(before);
            before = at;
            Set<String> mine = made.computeIfAbsent(deed.share(), none -> new HashSet<>());
            LivingFile file = byPath.get(deed.share()).get(deed.path());
            if (deed.kind() == Kind.READ && deed.allowed()) {
                assertThat(file).as(deed.toString()).isNotNull();
                assertThat(file.born()).as(deed.toString()).isLessThanOrEqualTo(at.getEpochSecond());
            } else if (deed.kind() == Kind.WRITE) {
                mine.add(deed.path());
            } else if (deed.kind() == Kind.MOVE) {
                assertThat(mine).contains(deed.path());
                assertThat(byPath.get(deed.share())).containsKey(deed.target());
            } else if (deed.kind() == Kind.DELETE) {
                assertThat(file).as(deed.toString()).isNull();
            }
        }
        assertThat(MONTH.deeds().size()).isBetween(450_000, 550_000);
    }

    @Test
    void the_deeds_explain_when_each_file_was_last_saved_and_read() {
        Map<String, Set<String>> saves = new HashMap<>();
        Map<String, Set<String>> uses = new HashMap<>();
        for (Deed deed : MONTH.deeds()) {
            String moment = deed.share() + deed.micros() / 1_000_000;
            if (deed.allowed() && deed.kind() == Kind.WRITE) {
                saves.computeIfAbsent(moment, none -> new HashSet<>()).add(deed.person());
            }
            if (deed.allowed() && (deed.kind() == Kind.READ || deed.kind() == Kind.WRITE)) {
                uses.computeIfAbsent(moment, none -> new HashSet<>()).add(deed.path());
            }
        }
        for (ShareLife life : SHARES.values()) {
            for (LivingFile file : life.files()) {
                if (file.modified() >= BEGIN) {
                    assertThat(saves.getOrDefault(life.share() + file.modified(), Set.of()))
                            .as(file.path())
                            .contains(file.owner().uid());
                }
                if (file.accessed() > file.modified() && file.accessed() >= BEGIN) {
                    assertThat(uses.getOrDefault(life.share() + file.accessed(), Set.of()))
                            .contains(file.path());
                }
            }
        }
    }

    @Test
    void people_work_at_their_hours_and_only_instruments_at_night() {
        Set<String> people = CREW.people().stream().map(Staffer::uid).collect(Collectors.toSet());
        long all = 0;
        long odd = 0;
        for (Deed deed : MONTH.deeds()) {
            if (people.contains(deed.person())) {
                var at = Instant.ofEpochSecond(deed.micros() / 1_000_000).atZone(ZoneOffset.UTC);
                all++;
                odd += at.getHour() < 6 || at.getHour() > 20 || !Hours.isWorkday(at.toLocalDate()) ? 1 : 0;
            }
        }
        assertThat(share(odd, all)).isBetween(0.0005, 0.03);
    }

    @Test
    void one_morning_an_account_does_what_nobody_can() {
        Map<String, Integer> byHour = new HashMap<>();
        for (Deed deed : MONTH.deeds()) {
            if (deed.kind() == Kind.WRITE || deed.kind() == Kind.DELETE) {
                String hour = deed.person() + " " + deed.micros() / 3_600_000_000L;
                if (!Set.of("stations", "dbhost", "sequencer").contains(deed.person())) {
                    byHour.merge(hour, 1, Integer::sum);
                }
            }
        }
        List<Map.Entry<String, Integer>> most = new ArrayList<>(byHour.entrySet());
        most.sort(Map.Entry.<String, Integer>comparingByValue().reversed());
        assertThat(most.getFirst().getKey()).startsWith("pell ");
        assertThat(most.getFirst().getValue()).isGreaterThan(10 * most.get(4).getValue() / 4);
    }

    @Test
    void refused_tries_say_which_rule_was_in_the_way() {
        List<String> reasons = MONTH.deeds().stream()
                .filter(d -> !d.allowed())
                .map(Deed::reason)
                .toList();
        assertThat(reasons).hasSizeGreaterThan(300);
        assertThat(reasons).anyMatch(r -> r.startsWith("Limit of /suki (Stop) "));
        assertThat(reasons).anyMatch(r -> r.startsWith("Own folders of homes let nobody"));
        assertThat(reasons).anyMatch(r -> r.startsWith("Access to sequences has no rule for "));
        assertThat(reasons).anyMatch(r -> r.contains("does not let "));
    }

    @Test
    void history_ends_in_what_is_there_and_counts_what_went() {
        for (ShareLife life : SHARES.values()) {
            var days = Balance.of(life, MONTH.ghosts(), bytes -> bytes);
            assertThat(days.get(Ages.LAST)).isEqualTo(life.bytes());
            assertThat(days).hasSize(Ages.MONTH + 1);
            assertThat(days.values())
                    .allMatch(bytes -> bytes > 0 != life.files().isEmpty());
        }
        var office = Balance.of(SHARES.get("office"), MONTH.ghosts(), bytes -> bytes);
        LocalDate spree = LocalDate.of(2026, 2, 19);
        assertThat(office.get(spree)).isLessThan(office.get(spree.minusDays(1)));
    }

    @Test
    void what_files_were_before_fits_to_what_they_are() {
        Map<String, LivingFile> now = new HashMap<>();
        SHARES.forEach((share, life) -> life.files().forEach(file -> now.put(share + file.path(), file)));
        Map<String, Set<String>> folders = new HashMap<>();
        SHARES.forEach((share, life) -> folders.put(share, life.folders().keySet()));
        int rewritten = 0;
        for (Past past : MONTH.pasts()) {
            String path = past.folder().equals("/") ? "/" + past.name() : past.folder() + "/" + past.name();
            assertThat(past.born()).as(path).isLessThan(past.died());
            assertThat(past.contents().length()).as(path).isPositive();
            assertThat(folders.get(past.share()).contains(past.folder()))
                    .as(path)
                    .isTrue();
            LivingFile file = now.get(past.share() + path);
            if (file != null) {
                rewritten++;
                assertThat(past.died()).as(path).isEqualTo(file.modified());
                assertThat(past.contents()).as(path).isNotEqualTo(file.contents());
                assertThat(past.contents().length()).isEqualTo(file.bytes());
            }
        }
        assertThat(rewritten).as("by the account in wrong hands").isGreaterThan(400);
        assertThat(MONTH.pasts().size() - rewritten).as("deleted").isGreaterThan(1_000);
    }

    @Test
    void the_same_crew_always_lives_the_same_month() {
        assertThat(ShareLife.of("office", CREW).files().stream().map(LivingFile::path))
                .containsExactlyElementsOf(ShareLife.of("office", Crew.of(DemoPeople.all())).files().stream()
                        .map(LivingFile::path)
                        .toList());
    }

    @Test
    void holidays_move_with_easter() {
        assertThat(Hours.easter(2026)).isEqualTo(LocalDate.of(2026, 4, 5));
        assertThat(Hours.easter(2024)).isEqualTo(LocalDate.of(2024, 3, 31));
        assertThat(Hours.isWorkday(LocalDate.of(2026, 4, 3))).isFalse();
        assertThat(Hours.isWorkday(LocalDate.of(2026, 4, 6))).isFalse();
        assertThat(Hours.isWorkday(LocalDate.of(2026, 4, 7))).isTrue();
        assertThat(Hours.isWorkday(LocalDate.of(2026, 12, 25))).isFalse();
    }
}
