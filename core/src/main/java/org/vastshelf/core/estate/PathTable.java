package org.vastshelf.core.estate;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Things by folder, found for the enclosing folders of a path without making any of their names: a hash table with
 * linear probing over {@link String#hashCode}, which is that of the path's beginning (Knuth, The Art of Computer
 * Programming 3, section 6.4, algorithm L). Half of the slots stay empty.
 */
public final class PathTable<T> {

    private final String[] folders;
    private final Object[] things;
    /** Beside the names, so that a name is only looked at when its hash is the one sought. */
    private final int[] hashes;

    private final int mask;

    private PathTable(int size) {
        int slots = Integer.highestOneBit(Math.max(4, size * 2)) * 2;
        this.folders = new String[slots];
        this.things = new Object[slots];
        this.hashes = new int[slots];
        this.mask = slots - 1;
    }

    public static <T> PathTable<T> of(Map<FilePath, T> things) {
        PathTable<T> table = new PathTable<>(things.size());
        things.forEach((folder, thing) -> table.put(folder.text(), thing));
        return table;
    }

    private void put(String folder, T thing) {
        int slot = spread(folder.hashCode());
        while (folders[slot] != null) {
            slot = (slot + 1) & mask;
        }
        folders[slot] = folder;
        things[slot] = thing;
        hashes[slot] = folder.hashCode();
    }

    private int spread(int hash) {
        return (hash ^ (hash >>> 16)) & mask;
    }

    /** Length of the outermost folder's name in any path: that of the root. */
    public static final int ROOT = 1;

    /** Length of the name of the next folder on the way to a file, after one of this length; −1 behind the last. */
    public static int next(FilePath file, int length) {
        return file.text().indexOf('/', length == ROOT ? ROOT : length + 1);
    }

    /** What the folder has whose name is the beginning of a path, so many characters long; null for nothing. */
    @SuppressWarnings("unchecked")
    public @Nullable T at(FilePath path, int length) {
        String text = path.text();
        int hash = 0;
        for (int i = 0; i < length; i++) {
            hash = 31 * hash + text.charAt(i);
        }
        for (int slot = spread(hash); folders[slot] != null; slot = (slot + 1) & mask) {
            if (hashes[slot] == hash && folders[slot].length() == length && text.startsWith(folders[slot])) {
                return (T) things[slot];
            }
        }
        return null;
    }

    /** What the folders that enclose a file have, outermost first. */
    public List<T> along(FilePath file) {
        List<T> found = new ArrayList<>();
        for (int length = ROOT; length > 0; length = next(file, length)) {
            T thing = at(file, length);
            if (thing != null) {
                found.add(thing);
            }
        }
        return found;
    }
}
