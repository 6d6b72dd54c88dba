package org.vastshelf.core.serve;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Share;

/** The exact command with which a client reaches a share. */
public final class MountLines {

    /** One line for one kind of client. */
    public record MountLine(String client, String protocol, String command) {}

    private MountLines() {}

    /** Mount lines for a person; none while the file server has no data address. */
    public static List<MountLine> of(Share share, FileServer server, String person) {
        return of(share, server, server.host(), person);
    }

    /** The same where the share has a name of its own, which moves with it. */
    public static List<MountLine> of(Share share, FileServer server, String host, String person) {
        List<MountLine> lines = new ArrayList<>();
        if (!server.isReachable()) {
            return lines;
        }
        String name = share.name();
        if (share.smb()) {
            lines.add(new MountLine(
                    "Linux",
                    "SMB",
                    "sudo mount -t cifs //" + host + "/" + name + " /mnt/" + name + " -o username=" + person
                            + ",vers=3.1.1,seal"));
            lines.add(new MountLine(
                    "macOS",
                    "SMB",
                    "mkdir -p ~/" + name + " && mount_smbfs //" + person + "@" + host + "/" + name + " ~/" + name));
            lines.add(new MountLine(
                    "Windows", "SMB", "net use * \\\\" + host + "\\" + name + " /user:" + person + " /persistent:yes"));
        }
        if (share.nfs()) {
            lines.add(new MountLine(
                    "Linux", "NFS", "sudo mount -t nfs -o vers=4.2 " + host + ":/" + name + " /mnt/" + name));
            lines.add(new MountLine(
                    "macOS",
                    "NFS",
                    "sudo mkdir -p /private/" + name + " && sudo mount -t nfs -o vers=4.0,resvport " + host + ":/"
                            + name + " /private/" + name));
            lines.add(new MountLine("Windows", "NFS", "mount -o anon,mtype=hard \\\\" + host + "\\" + name + " *"));
        }
        return lines;
    }
}
