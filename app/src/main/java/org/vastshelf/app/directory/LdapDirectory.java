package org.vastshelf.app.directory;

import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.LoadingCache;
import com.unboundid.ldap.sdk.Filter;
import com.unboundid.ldap.sdk.LDAPConnection;
import com.unboundid.ldap.sdk.LDAPConnectionPool;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.LDAPURL;
import com.unboundid.ldap.sdk.ResultCode;
import com.unboundid.ldap.sdk.SearchResultEntry;
import com.unboundid.ldap.sdk.SearchScope;
import java.time.Duration;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Person;

/** People and groups of an LDAP directory (RFC 4511): {@code inetOrgPerson} by uid, {@code groupOfNames} by member. */
final class LdapDirectory implements Directory, AutoCloseable {

    private static final String EVERYONE = "everyone";
    private static final String NOBODY = "uid=nobody-of-that-name,";

    private final LDAPConnectionPool pool;
    private final LDAPURL url;
    private final String base;
    /** Whether it changed for certain since this was asked last. */
    private final BooleanSupplier changes;
    /** Read again behind the back of whoever asks, unless nobody has asked for long. */
    private final LoadingCache<String, Everybody> cache = Caffeine.newBuilder()
            .refreshAfterWrite(Duration.ofSeconds(20))
            .expireAfterWrite(Duration.ofMinutes(2))
            .build(key -> read());

    private record Entry(String dn, Person person) {}

    private record Everybody(Map<String, Entry> byUid, List<Person> byName) {}

    LdapDirectory(String url, String base, String bindDn, String bindPassword, BooleanSupplier changes)
            throws LDAPException {
        this.url = new LDAPURL(url);
        this.base = base;
        this.changes = changes;
        LDAPConnection first = bindDn.isEmpty()
                ? new LDAPConnection(this.url.getHost(), this.url.getPort())
                : new LDAPConnection(this.url.getHost(), this.url.getPort(), bindDn, bindPassword);
        this.pool = new LDAPConnectionPool(first, 1, 8);
    }

    @Override
    public Optional<Person> person(String uid) {
        return Optional.ofNullable(entries().get(uid)).map(Entry::person);
    }

    @Override
    public List<Person> people() {
        return everybody().byName;
    }

    @Override
    public boolean authenticates(String uid, String password) {
        Entry entry = entries().get(uid);
        // A bind without a password succeeds anonymously (RFC 4513, section 5.1.2); it proves nothing.
        if (password.isEmpty()) {
            return false;
        }
        // Nobody of that name is asked for all the same, so that the time it takes does not tell who there is.
        String dn = entry == null ? NOBODY + base : entry.dn;
        try (LDAPConnection connection = new LDAPConnection(url.getHost(), url.getPort())) {
            boolean right = connection.bind(dn, password).getResultCode() == ResultCode.SUCCESS;
            return right && entry != null;
        } catch (LDAPException e) {
            if (e.getResultCode() == ResultCode.INVALID_CREDENTIALS
                    || e.getResultCode() == ResultCode.NO_SUCH_OBJECT
                    || entry == null) {
                return false;
            }
            throw new IllegalStateException("the directory does not answer", e);
        }
    }

    private Map<String, Entry> entries() {
        return everybody().byUid;
    }

    private Everybody everybody() {
        if (changes.getAsBoolean()) {
            cache.invalidate(EVERYONE);
        }
        return cache.get(EVERYONE);
    }

    private Everybody read() {
        try {
            Memberships groups = new Memberships();
            for (SearchResultEntry group : search("groupOfNames", "cn", "member")) {
                String name = group.getAttributeValue("cn");
                String dn = normal(group.getDN());
                for (String member : group.getAttributeValues("member")) {
                    groups.add(normal(member), dn, name);
                }
            }
            Map<String, Entry> people = new HashMap<>();
            for (SearchResultEntry found : search("inetOrgPerson", "uid", "cn", "mail")) {
                String uid = found.getAttributeValue("uid");
                Set<String> memberOf = groups.of(normal(found.getDN()));
                people.put(
                        uid,
                        new Entry(
                                found.getDN(),
                                new Person(
                                        uid,
                                        found.getAttributeValue("cn"),
                                        Optional.ofNullable(found.getAttributeValue("mail"))
                                                .orElse(""),
                                        memberOf)));
            }
            return new Everybody(
                    people,
                    people.values().stream()
                            .map(Entry::person)
                            .sorted(Comparator.comparing(Person::name))
                            .toList());
        } catch (LDAPException e) {
            throw new IllegalStateException("the directory does not answer", e);
        }
    }

    private List<SearchResultEntry> search(String objectClass, String... attributes) throws LDAPException {
        return pool.search(base, SearchScope.SUB, Filter.createEqualityFilter("objectClass", objectClass), attributes)
                .getSearchEntries();
    }

    private static String normal(String dn) throws LDAPException {
        return com.unboundid.ldap.sdk.DN.normalize(dn);
    }

    @Override
    public void close() {
        pool.close();
    }
}
