package org.vastshelf.standins.directory;

import com.unboundid.ldap.listener.InMemoryDirectoryServer;
import com.unboundid.ldap.listener.InMemoryDirectoryServerConfig;
import com.unboundid.ldap.listener.InMemoryListenerConfig;
import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldif.LDIFReader;
import java.io.InputStream;
import java.net.InetAddress;
import java.util.List;

/** An LDAP server on loopback that holds the people and groups of the demo. */
public final class EmbeddedDirectory implements AutoCloseable {

    public static final String BASE = "dc=larkmoor,dc=example";

    private final InMemoryDirectoryServer server;

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

    public String url() {
        return "ldap://127.0.0.1:" + server.getListenPort();
    }

    @Override
    public void close() {
        server.shutDown(true);
    }
}
