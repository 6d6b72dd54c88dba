package org.vastshelf.core.estate;

import java.util.List;

/**
 * A volume that clients reach over SMB, NFS or both.
 *
 * @param hiddenEntries folder listings leave out what the reader may not open
 */
public record Share(
        String name,
        String volume,
        boolean smb,
        boolean nfs,
        boolean hiddenEntries,
        List<AccessRule> access,
        List<ExportRule> exports) {

    public Share {
        Names.require("share name", name);
        access = List.copyOf(access);
        exports = List.copyOf(exports);
        if (!smb && !nfs) {
            throw new IllegalArgumentException("share '" + name + "' has no protocol, must have SMB, NFS or both");
        }
    }
}
