package org.vastshelf.core.estate;

import java.util.List;
import java.util.Optional;

/**
 * A volume that clients reach over SMB, NFS or both.
 *
 * @param hiddenEntries folder listings leave out what the reader may not open
 * @param ownFolders the folder each of whose child folders belongs to the person of its name; empty for none
 */
public record Share(
        String name,
        String volume,
        boolean smb,
        boolean nfs,
        boolean hiddenEntries,
        List<AccessRule> access,
        List<ExportRule> exports,
        Optional<FilePath> ownFolders) {

    /** Whose something on the share is. */
    public enum Ownership {
        /** Governed by the share's access rules. */
        COMMON,
        /** In the own folder of whoever asks. */
        OWN,
        /** In the own folder of somebody else. */
        OTHERS
    }

    public Share {
        Names.require("share name", name);
        access = List.copyOf(access);
        exports = List.copyOf(exports);
        // Shares written before there were own folders do not name it.
        ownFolders = ownFolders == null ? Optional.empty() : ownFolders;
        if (!smb && !nfs) {
            throw new IllegalArgumentException("share '" + name + "' has no protocol, must have SMB, NFS or both");
        }
    }

    /**
     * Whose a path is, as a person sees it. What lies right in the folder of own folders is common, but for the own
     * folders themselves.
     *
     * @param folder whether the path is that of a folder
     */
    public Ownership ownership(FilePath path, boolean folder, String uid) {
        if (ownFolders.isEmpty()) {
            return Ownership.COMMON;
        }
        String base = ownFolders.get().text();
        String text = path.text();
        int begin = base.length() == 1 ? 1 : base.length() + 1;
        boolean below = text.length() > begin && text.startsWith(base) && text.charAt(begin - 1) == '/';
        int end = below ? text.indexOf('/', begin) : -1;
        if (!below || end < 0 && !folder) {
            return Ownership.COMMON;
        }
        int length = (end < 0 ? text.length() : end) - begin;
        return length == uid.length() && text.startsWith(uid, begin) ? Ownership.OWN : Ownership.OTHERS;
    }

    /** Another volume for the same people. */
    public Share likewise(String otherName, String otherVolume) {
        return new Share(otherName, otherVolume, smb, nfs, hiddenEntries, access, exports, ownFolders);
    }

    /** The share with other rules of who gets to it. */
    public Share withAccess(List<AccessRule> nextAccess, List<ExportRule> nextExports) {
        return new Share(name, volume, smb, nfs, hiddenEntries, nextAccess, nextExports, ownFolders);
    }
}
