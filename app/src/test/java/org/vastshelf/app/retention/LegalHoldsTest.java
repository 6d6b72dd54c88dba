package org.vastshelf.app.retention;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.PlatformTransactionManager;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.config.Settings.HoldRelease;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.security.Role;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.invariant.Invariants;

/** Who may take a legal tag off, and who has to agree. */
class LegalHoldsTest {

    private static final FilePath PATH = new FilePath("/matter");
    private static final Someone ODILE = someone("odile", Role.ADMINISTRATOR);
    private static final Someone OLGA = someone("olga", Role.ADMINISTRATOR);
    private static final Someone TOMAS = someone("tomas", Role.OPERATOR);

    private final HoldingStore files = mock(HoldingStore.class);
    private final EstateStore estates = mock(EstateStore.class);
    private final ShelfClock clock = mock(ShelfClock.class);
    private Estate estate = Estate.EMPTY.with(
            Kinds.SHARE,
            new Share(
                    "film",
                    "film",
                    true,
                    false,
                    true,
                    List.of(new AccessRule(AccessRule.Subject.EVERYONE, "", AccessRule.Level.WRITE)),
                    List.of(),
                    Optional.empty()));
    private String key = "";

    private static Someone someone(String uid, Role role) {
        return new Someone(new Person(uid, uid, uid + "@larkmoor.example", Set.of()), role);
    }

    private LegalHolds holds(HoldRelease release) {
        Settings settings =
                new Settings(true, false, true, Path.of("."), List.of(), 30, release, "", "EUR", 500, null, null);
        return new LegalHolds(
                files,
                estates,
                settings,
                clock,
                mock(Deeds.class),
                new Transactions(mock(PlatformTransactionManager.class)));
    }

    @BeforeEach
    void tagged() {
        when(clock.instant()).thenReturn(Instant.EPOCH);
        when(files.isThere("film", PATH)).thenReturn(true);
        when(files.sum(any(), any())).thenReturn(new Holding.Sum(3, 99));
        when(estates.load()).thenAnswer(i -> estate);
        when(estates.change(any())).thenAnswer(i -> {
            BiFunction<Estate, Usage, EstateAnswer> change = i.getArgument(0);
            EstateAnswer answer = change.apply(estate, Usage.NONE);
            if (answer instanceof EstateAnswer.Changed changed) {
                assertThat(Invariants.brokenBy(estate, changed.estate(), Usage.NONE))
                        .isEmpty();
                estate = changed.estate();
            }
            return answer;
        });
        key = holds(HoldRelease.BOTH_ROLES)
                .put("odile", "film", PATH, "case-1", "asked")
                .key();
    }

    @Test
    void it_takes_one_of_each_role() {
        LegalHolds holds = holds(HoldRelease.BOTH_ROLES);
        assertThatThrownBy(() -> holds.takeOff(TOMAS, key)).hasMessageContaining("nobody asked to take it off yet");
        holds.ask(ODILE, key);
        assertThatThrownBy(() -> holds.takeOff(ODILE, key)).hasMessageContaining("you asked for it yourself");
        assertThatThrownBy(() -> holds.takeOff(OLGA, key))
                .hasMessage(
                        "odile, who asked for it, is administrator as you are; it takes an operator and an administrator");
        assertThatThrownBy(() -> holds.ask(TOMAS, key)).hasMessage("odile has asked for that already");
        holds.takeOff(TOMAS, key);
        assertThat(holds.all()).isEmpty();
    }

    @Test
    void two_people_may_be_enough_or_one() {
        LegalHolds two = holds(HoldRelease.TWO_PEOPLE);
        two.ask(ODILE, key);
        two.takeOff(OLGA, key);
        assertThat(two.all()).isEmpty();
        LegalHolds one = holds(HoldRelease.ONE);
        String next = one.put("odile", "film", PATH, "case-2", "asked").key();
        one.takeOff(ODILE, next);
        assertThat(one.all()).isEmpty();
    }

    @Test
    void a_tag_that_is_kept_after_all_needs_to_be_asked_for_again() {
        LegalHolds holds = holds(HoldRelease.BOTH_ROLES);
        assertThatThrownBy(() -> holds.keep(TOMAS, key)).hasMessage("nobody asked to take it off");
        holds.ask(ODILE, key);
        holds.keep(TOMAS, key);
        assertThatThrownBy(() -> holds.takeOff(TOMAS, key)).hasMessageContaining("nobody asked");
        assertThat(holds.kept(holds.tag(key))).isEqualTo(new Holding.Sum(3, 99));
    }

    @Test
    void what_can_not_be_tagged_is_refused_at_its_field() {
        LegalHolds holds = holds(HoldRelease.BOTH_ROLES);
        refused(() -> holds.put("odile", "film", PATH, "case-1", "again"), "tag", "which is on '/matter' already");
        refused(
                () -> holds.put("odile", "film", new FilePath("/x"), "case-1", "x"),
                "path",
                "There is nothing at '/x'");
        refused(() -> holds.put("odile", "other", PATH, "case-1", "x"), "share", "There is no share 'other'");
        refused(() -> holds.put("odile", "film", PATH, "Case", "x"), "tag", "must be 1 to 40 small letters");
    }

    private static void refused(Runnable put, String field, String text) {
        assertThatThrownBy(put::run)
                .isInstanceOf(AtField.class)
                .hasMessageContaining(text)
                .satisfies(refused -> assertThat(((AtField) refused).field()).isEqualTo(field));
    }
}
