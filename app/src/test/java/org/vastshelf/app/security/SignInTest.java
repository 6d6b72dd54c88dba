package org.vastshelf.app.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.LockedException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;

class SignInTest {

    private final Directory directory = mock(Directory.class);
    private final SignIn signIn = new SignIn(directory, new Throttle());

    @BeforeEach
    void people() {
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
    void too_many_failures_close_the_name_without_asking_the_directory_again() {
        for (int i = 0; i < Throttle.MOST_FAILURES; i++) {
            assertThatThrownBy(() -> as("odile", "wrong")).isInstanceOf(BadCredentialsException.class);
        }
        assertThatThrownBy(() -> as("odile", "right"))
                .isInstanceOf(LockedException.class)
                .hasMessage("Too many failed sign-ins as 'odile'; wait 5 minutes");
        verify(directory, times(Throttle.MOST_FAILURES)).authenticates(any(), anyString());
    }

    @Test
    void a_success_forgets_the_failures_before() {
        for (int round = 0; round < 3; round++) {
            for (int i = 0; i < Throttle.MOST_FAILURES - 1; i++) {
                assertThatThrownBy(() -> as("odile", "wrong")).isInstanceOf(BadCredentialsException.class);
            }
            assertThat(as("odile", "right").getName()).isEqualTo("odile");
        }
    }

    @Test
    void a_keeper_sees_own_shares_and_acts_as_himself() {
        Someone bram = new Someone(new Person("bram", "Bram Hollis", "", Set.of()), Role.KEEPER);
        AccessRule own = new AccessRule(AccessRule.Subject.PERSON, "bram", AccessRule.Level.OWN);
        AccessRule write = new AccessRule(AccessRule.Subject.PERSON, "bram", AccessRule.Level.WRITE);
        assertThat(bram.sees(new Share("a", "a", true, false, true, List.of(own), List.of())))
                .isTrue();
        assertThat(bram.sees(new Share("b", "b", true, false, true, List.of(write), List.of())))
                .isFalse();
        assertThat(bram.actsAs("bram")).isTrue();
        assertThat(bram.actsAs("suki")).isFalse();
    }
}
