package org.vastshelf.core.tier;

/** So many files with so many bytes in them. */
public record FileSum(long files, long bytes) {

    public static final FileSum NONE = new FileSum(0, 0);

    public FileSum plus(FileSum other) {
        return new FileSum(Math.addExact(files, other.files), Math.addExact(bytes, other.bytes));
    }

    public FileSum minus(FileSum other) {
        return new FileSum(files - other.files, bytes - other.bytes);
    }
}
