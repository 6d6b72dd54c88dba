package org.vastshelf.app.road;

import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation.Client;
import org.vastshelf.core.gate.FileOperation.Protocol;

/** The stand-in workstations: everybody sits at one in the garden's network. */
public final class Workstations {

    private Workstations() {}

    /** The person's workstation, by SMB where the share is served over it. */
    public static Client of(Share share, String uid) {
        return new Client(address(uid), share.smb() ? Protocol.SMB : Protocol.NFS);
    }

    /** Where somebody's machine is: the same for good, and hardly ever somebody else's too. */
    public static String address(String uid) {
        int seat = Math.floorMod(uid.hashCode() * 0x9E3779B1, 128 * 254);
        return "10.20." + (64 + seat / 254) + "." + (1 + seat % 254);
    }
}
