package org.vastshelf.app.road;

import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation.Client;
import org.vastshelf.core.gate.FileOperation.Protocol;

/** The stand-in workstations: everybody sits at one in the garden's network. */
public final class Workstations {

    private Workstations() {}

    /** The person's workstation, by SMB where the share is served over it. */
    public static Client of(Share share, String uid) {
        int seat = 10 + Math.floorMod(uid.hashCode(), 200);
        return new Client("10.20.4." + seat, share.smb() ? Protocol.SMB : Protocol.NFS);
    }
}
