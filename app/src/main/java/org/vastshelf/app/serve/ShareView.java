package org.vastshelf.app.serve;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.serve.MountLines;

/**
 * What the page of one share shows.
 *
 * @param nfs whether clients mount it over NFS, by its exports
 */
public record ShareView(
        String name,
        String lead,
        List<MountLine> mountLines,
        List<String> access,
        boolean nfs,
        List<Export> exports,
        List<String> limits) {

    /** A line by which a client mounts it. */
    public record MountLine(String client, String command, String copies) {}

    /** Which clients may mount it. */
    public record Export(String clients, String may) {}

    static ShareView of(
            Share share, FileServer server, Optional<ReplicaPair> pair, Stream<LimitRule> limits, String person) {
        String host = pair.map(ReplicaPair::host).orElse(server.host());
        String address = pair.map(ReplicaPair::address).orElse(server.address());
        return new ShareView(
                share.name(),
                "Volume " + share.volume() + " on " + server.name()
                        + (server.isReachable() ? " at " + address : ", which has no data address")
                        + ". Entries a reader may not open are " + (share.hiddenEntries() ? "hidden." : "shown."),
                MountLines.of(share, server, host, person).stream()
                        .map(m -> new MountLine(
                                m.client() + ", " + m.protocol(),
                                m.command(),
                                "Copy the line for " + m.client() + " over " + m.protocol()))
                        .toList(),
                share.access().stream().map(String::valueOf).toList(),
                share.nfs(),
                share.exports().stream()
                        .map(x -> new Export(x.clients().text(), x.mayWrite() ? "read and write" : "read"))
                        .toList(),
                limits.map(l -> l.path() + (l.eachChild() ? ", each child folder" : "") + ": "
                                + l.stance().title())
                        .toList());
    }
}
