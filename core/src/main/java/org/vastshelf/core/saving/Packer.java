package org.vastshelf.core.saving;

/** Packs chunks one by one, as a file server would; implemented by whoever has the library for it. */
@FunctionalInterface
public interface Packer {

    /** Leaves them as they are. */
    Packer NONE = (bytes, from, length) -> length;

    /** How many bytes a chunk takes when it is packed; what gets no shorter is left as it is. */
    int packed(byte[] bytes, int from, int length);
}
