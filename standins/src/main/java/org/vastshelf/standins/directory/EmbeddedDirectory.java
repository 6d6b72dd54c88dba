package org.vastshelf.standins.directory;

import com.unboundid.ldap.listener.InMemoryDirectoryServer;
import com.unboundid.ldap.listener.InMemoryDirectoryServerConfig;
import com.unboundid.ldap.listener.InMemoryListenerConfig;
import com.unboundid.ldap.sdk.Attribute;
import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldap.sdk.Filter;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.Modification;
import com.unboundid.ldap.sdk.ModificationType;
import com.unboundid.ldap.sdk.SearchResultEntry;
import com.unboundid.ldap.sdk.SearchScope;
import com.unboundid.ldif.LDIFReader;
import java.io.InputStream;
import java.net.InetAddress;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.List;

/** An LDAP server on loopback that holds the people and groups of the demo. */
public final class EmbeddedDirectory implements AutoCloseable {

    public static final String BASE = "dc=larkmoor,dc=example";

    private final InMemoryDirectoryServer server;
    /** The month up to which people came and went. */
    private YearMonth upTo = YearMonth.of(2026, 3);

    private EmbeddedDirectory(InMemoryDirectoryServer server) {
        this.server = server;
    }

    /** Starts on a free port with the shipped LDIF. */
    public static EmbeddedDirectory start() {
        return start(List.of());
    }

    /** The same with more entries. */
    public static EmbeddedDirectory start(List<Entry> more) {
        try {
            InMemoryDirectoryServerConfig config = new InMemoryDirectoryServerConfig(BASE);
            config.setListenerConfigs(
                    InMemoryListenerConfig.createLDAPConfig("loopback", InetAddress.getLoopbackAddress(), 0, null));
            InMemoryDirectoryServer server = new InMemoryDirectoryServer(config);
            InputStream ldif = EmbeddedDirectory.class.getResourceAsStream("/larkmoor.ldif");
            server.importFromLDIF(true, new LDIFReader(ldif));
            server.addEntries(more);
            server.startListening();
            return new EmbeddedDirectory(server);
        } catch (LDAPException e) {
            throw new IllegalStateException("the embedded directory did not start", e);
        }
    }

    /**
     * Lets those join and leave who have by this day; the demo's time never goes back.
     *
     * @return whether anything changed
     */
    public synchronized boolean advance(LocalDate day) {
        YearMonth month = YearMonth.from(day);
        if (!month.isAfter(upTo)) {
            return false;
        }
        try {
            for (Turnover.Joiner joiner : Turnover.joined(upTo, month)) {
                join(joiner);
            }
            for (String uid : Turnover.left(upTo, month)) {
                leave(uid);
            }
        } catch (LDAPException e) {
            throw new IllegalStateException("the embedded directory did not take a change", e);
        }
        upTo = month;
        return true;
    }

    /** Whether somebody may have joined or left by this day who has not yet. */
    public synchronized boolean isBehind(LocalDate day) {
        return YearMonth.from(day).isAfter(upTo);
    }

    private void join(Turnover.Joiner joiner) throws LDAPException {
        String uid = free(joiner.uid());
        String dn = person(uid);
        server.add(new Entry(
                dn,
                new Attribute("objectClass", "inetOrgPerson"),
                new Attribute("uid", uid),
                new Attribute("cn", joiner.first() + " " + joiner.last()),
                new Attribute("sn", joiner.last()),
                new Attribute("mail", uid + "@larkmoor.example"),
                new Attribute("userPassword", "larkmoor")));
        for (String group : List.of(joiner.department(), "room-small")) {
            server.modify("cn=" + group + ",ou=groups," + BASE, new Modification(ModificationType.ADD, "member", dn));
        }
    }

    /** The name, or where somebody has it one that a number sets apart. */
    private String free(String uid) throws LDAPException {
        String free = uid;
        for (int apart = 2; server.getEntry(person(free)) != null; apart++) {
            free = uid + apart;
        }
        return free;
    }

    private void leave(String uid) throws LDAPException {
        String dn = person(uid);
        for (SearchResultEntry group : server.search(
                        BASE, SearchScope.SUB, Filter.createEqualityFilter("member", dn), "cn")
                .getSearchEntries()) {
            server.modify(group.getDN(), new Modification(ModificationType.DELETE, "member", dn));
        }
        server.delete(dn);
    }

    private static String person(String uid) {
        return "uid=" + uid + ",ou=people," + BASE;
    }

    public String url() {
        return "ldap://127.0.0.1:" + server.getListenPort();
    }

    @Override
    public void close() {
        server.shutDown(true);
    }
}
