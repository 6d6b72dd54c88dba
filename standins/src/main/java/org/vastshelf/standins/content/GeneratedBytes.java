package org.vastshelf.standins.content;

import java.util.Arrays;
import org.vastshelf.core.content.FileStreams;
import org.vastshelf.core.content.StreamId;

/** Bytes of the streams that stand-in file servers hold; the same stream gives the same bytes, from any place on. */
public final class GeneratedBytes implements FileStreams {

    @Override
    public StreamId of(String fileName, long number) {
        return Texture.of(fileName).stream(number);
    }

    @Override
    public void read(StreamId stream, long offset, byte[] into, int at, int length) {
        if (stream.texture() == StreamId.ZERO) {
            Arrays.fill(into, at, at + length, (byte) 0);
            return;
        }
        Texture texture = Texture.of(stream);
        byte[] page = new byte[Body.PAGE];
        int done = 0;
        while (done < length) {
            int from = (int) ((offset + done) % Body.PAGE);
            int part = Math.min(length - done, Body.PAGE - from);
            texture.make(stream.number(), (offset + done) / Body.PAGE, page);
            System.arraycopy(page, from, into, at + done, part);
            done += part;
        }
    }
}
