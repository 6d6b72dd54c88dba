package org.vastshelf.standins;

import static org.assertj.core.api.Assertions.assertThat;

import com.unboundid.ldap.sdk.LDAPConnection;
import com.unboundid.ldap.sdk.SearchScope;
import java.time.LocalDate;
import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastshelf.standins.directory.EmbeddedDirectory;

class DirectoryTurnoverTest {

    private static Set<String> people(LDAPConnection ldap) throws Exception {
        Set<String> people = new HashSet<>();
        ldap.search(EmbeddedDirectory.BASE, SearchScope.SUB, "(uid=*)", "uid")
                .getSearchEntries()
                .forEach(e -> people.add(e.getAttributeValue("uid")));
        return people;
    }

    @Test
    void names_that_are_taken_stop_nobody_from_joining_for_twenty_years() throws Exception {
        try (EmbeddedDirectory directory = EmbeddedDirectory.start();
                LDAPConnection ldap = connected(directory)) {
            int before = people(ldap).size();
            directory.advance(LocalDate.of(2046, 3, 31));
            // All who leave have left by then.
            assertThat(people(ldap)).hasSize(before + 240 - 18).contains("fhawthorn", "fhawthorn2");
        }
    }

    private static LDAPConnection connected(EmbeddedDirectory directory) throws Exception {
        String url = directory.url();
        return new LDAPConnection("127.0.0.1", Integer.parseInt(url.substring(url.lastIndexOf(':') + 1)));
    }

    @Test
    void people_join_each_month_and_some_leave_with_all_their_memberships() throws Exception {
        try (EmbeddedDirectory directory = EmbeddedDirectory.start();
                LDAPConnection ldap = connected(directory)) {
            Set<String> before = people(ldap);
            assertThat(directory.advance(LocalDate.of(2026, 3, 31))).isFalse();
            assertThat(directory.advance(LocalDate.of(2026, 4, 1))).isTrue();
            assertThat(directory.advance(LocalDate.of(2026, 4, 30))).isFalse();
            assertThat(people(ldap)).hasSize(before.size() + 1).contains("aamberley");
            directory.advance(LocalDate.of(2027, 3, 15));
            Set<String> after = people(ldap);
            assertThat(after).hasSize(before.size() + 12 - 6).doesNotContain("lashby");
            assertThat(ldap.search(
                                    EmbeddedDirectory.BASE,
                                    SearchScope.SUB,
                                    "(member=uid=lashby,ou=people," + EmbeddedDirectory.BASE + ")")
                            .getEntryCount())
                    .isZero();
        }
    }
}
