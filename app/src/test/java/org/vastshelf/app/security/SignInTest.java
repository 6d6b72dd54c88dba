package org.vastshelf.app.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;

class SignInTest {

    private final Directory directory = mock(Directory.class);
    private final ThrottleStore throttle = mock(ThrottleStore.class);
    private final Deeds deeds = mock(Deeds.class);
    private final SignIn signIn = new SignIn(directory, throttle, deeds, mock(ShelfClock.class));

    @BeforeEach
    void people() {
        when(throttle.pause(any(), any(), any())).thenReturn(Duration.ZERO);
        when(directory.authenticates("odile", "right")).thenReturn(true);
        when(directory.person("odile"))
                .thenReturn(
                        Optional.of(new Person("odile", "Odile Fenn", "", Set.of("grounds", "shelf-administrators"))));
    }

    private Someone as(String uid, String password) {
        return (Someone) signIn.authenticate(new UsernamePasswordAuthenticationToken(uid, password))
                .getPrincipal();
    }

    @Test
    void the_role_comes_from_the_group() {
        assertThat(as("odile", "right").role()).isEqualTo(Role.ADMINISTRATOR);
    }

    @ParameterizedTest
    @CsvSource({
        "shelf-operators, OPERATOR",
        "shelf-auditors, AUDITOR",
        "shelf-keepers, KEEPER",
        "interns, FILE_USER",
        "shelf-administrators, ADMINISTRATOR"
    })
    void each_group_has_its_role(String group, Role role) {
        assertThat(Role.of(Set.of(group, "grounds"))).isEqualTo(role);
    }

    @Test
    void the_strongest_role_counts() {
        assertThat(Role.of(Set.of("shelf-keepers", "shelf-operators"))).isEqualTo(Role.OPERATOR);
    }

    @Test
    void a_wrong_try_is_counted_and_written_down_and_a_right_one_forgets() {
        assertThatThrownBy(() -> as("odile", "wrong"))
                .isInstanceOf(BadCredentialsException.class)
                .hasMessage("Name or password is wrong");
        verify(throttle).failed(eq("odile"), any(), any());
        verify(deeds).note(eq("odile"), any(), eq(Deeds.Kind.SIGN_IN), any(), eq(false), any());
        assertThat(as("odile", "right").getName()).isEqualTo("odile");
        verify(throttle).succeeded("odile");
    }

    @Test
    void a_name_that_is_longer_than_any_is_refused_without_asking_the_directory() {
        assertThatThrownBy(() -> as("x".repeat(100), "wrong")).isInstanceOf(BadCredentialsException.class);
        verify(directory, never()).authenticates(any(), anyString());
    }

    @Test
    void pauses_double_and_end_at_four_seconds() {
        assertThat(IntStream.rangeClosed(-3, 7).mapToObj(ThrottleStore::pause).map(Duration::toMillis))
                .containsExactly(0L, 0L, 0L, 0L, 250L, 500L, 1_000L, 2_000L, 4_000L, 4_000L, 4_000L);
    }

    @Test
    void a_keeper_sees_own_shares_and_acts_as_himself() {
        Someone bram = new Someone(new Person("bram", "Bram Hollis", "", Set.of()), Role.KEEPER);
        AccessRule own = new AccessRule(AccessRule.Subject.PERSON, "bram", AccessRule.Level.OWN);
        AccessRule write = new AccessRule(AccessRule.Subject.PERSON, "bram", AccessRule.Level.WRITE);
        assertThat(bram.sees(
                        new Share("a", "a", true, false, true, List.of(own), List.of(), java.util.Optional.empty())))
                .isTrue();
        assertThat(bram.sees(
                        new Share("b", "b", true, false, true, List.of(write), List.of(), java.util.Optional.empty())))
                .isFalse();
        assertThat(bram.actsAs("bram")).isTrue();
        assertThat(bram.actsAs("suki")).isFalse();
    }
}
