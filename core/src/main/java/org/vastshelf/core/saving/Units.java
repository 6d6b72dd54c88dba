package org.vastshelf.core.saving;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.ToIntFunction;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;
import org.vastshelf.core.content.StreamId;

/**
 * The units of which contents are made. They are told apart by the ranges of streams that they hold, so that equal ones
 * are found without reading them; bytes that happen to be alike in different streams count as different.
 *
 * @param bytes length of a unit; shorter ones are at the ends of files, and with {@link Cut#CONTENTS} where ranges meet
 * @param once whether equal ones are kept once
 * @param share how much of a stream is left when it is packed, in 4,096ths; 4,096 where it is not
 */
public record Units(Cut cut, int bytes, boolean once, ToIntFunction<StreamId> share) {

    public static final int WHOLE = 4_096;

    public List<UnitRun> of(Contents contents) {
        Gathering gathering = new Gathering();
        if (cut == Cut.CONTENTS) {
            contents.extents().forEach(extent -> byStream(gathering, extent));
        } else {
            byFile(gathering, contents);
        }
        return gathering.runs;
    }

    /** Cut points lie at the same places of a stream, whichever part of it a file holds. */
    private void byStream(Gathering to, Extent extent) {
        if (extent.stream().texture() == StreamId.ZERO) {
            zeros(to, extent.length());
            return;
        }
        long first = Math.ceilDiv(extent.offset(), bytes);
        long past = Math.floorDiv(extent.end(), bytes);
        if (first > past) {
            to.piece(List.of(extent));
            return;
        }
        part(to, extent, extent.offset(), first * bytes);
        to.whole(extent.stream(), 0, first, past - first);
        part(to, extent, past * bytes, extent.end());
    }

    private void part(Gathering to, Extent extent, long from, long end) {
        if (from < end) {
            to.piece(List.of(new Extent(extent.stream(), from, end - from)));
        }
    }

    private void zeros(Gathering to, long length) {
        to.zeros(length / bytes);
        if (length % bytes > 0) {
            to.piece(List.of(new Extent(StreamId.ZEROS, 0, length % bytes)));
        }
    }

    private void byFile(Gathering to, Contents contents) {
        long length = contents.length();
        long begin = 0;
        long next = 0;
        for (Extent extent : contents.extents()) {
            long end = begin + extent.length();
            if (next < begin && end >= Math.min(next + bytes, length)) {
                next = piece(to, contents, next);
            }
            if (next >= begin && next + bytes <= end) {
                long count = (end - next) / bytes;
                long offset = extent.offset() + next - begin;
                if (extent.stream().texture() == StreamId.ZERO) {
                    to.zeros(count);
                } else {
                    to.whole(extent.stream(), offset % bytes, offset / bytes, count);
                }
                next += count * bytes;
            }
            if (end == length && next < length) {
                next = piece(to, contents, next);
            }
            begin = end;
        }
    }

    /** A unit that lies in several ranges, or that the end of the file cuts short; says where the next begins. */
    private long piece(Gathering to, Contents contents, long from) {
        to.piece(contents.slice(from, Math.min(bytes, contents.length() - from)).extents());
        return from + bytes;
    }

    private final class Gathering {
        private final List<UnitRun> runs = new ArrayList<>();

        void whole(StreamId stream, long phase, long first, long count) {
            if (count > 0) {
                runs.add(new UnitRun(new UnitKind(stream, phase, bytes, packed(stream, bytes), once), first, count, 1));
            }
        }

        void zeros(long times) {
            if (times > 0) {
                runs.add(new UnitRun(
                        new UnitKind(StreamId.ZEROS, 0, bytes, packed(StreamId.ZEROS, bytes), once), 0, 1, times));
            }
        }

        void piece(List<Extent> parts) {
            int length = 0;
            int packed = 0;
            for (Extent part : parts) {
                length += Math.toIntExact(part.length());
                packed += packed(part.stream(), Math.toIntExact(part.length()));
            }
            byte[] hash = hash(parts);
            StreamId stream = new StreamId(UnitKind.PIECED, number(hash, 0));
            runs.add(new UnitRun(new UnitKind(stream, number(hash, Long.BYTES), length, packed, once), 0, 1, 1));
        }
    }

    private int packed(StreamId stream, int length) {
        return Math.max(1, Math.toIntExact(Math.ceilDiv((long) length * share.applyAsInt(stream), (long) WHOLE)));
    }

    /** What tells a unit that is put together from several ranges from others. */
    private static byte[] hash(List<Extent> parts) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            for (Extent part : parts) {
                update(digest, part.stream().texture());
                update(digest, part.stream().number());
                update(digest, part.offset());
                update(digest, part.length());
            }
            return digest.digest();
        } catch (NoSuchAlgorithmException everyJdkHasIt) {
            throw new IllegalStateException(everyJdkHasIt);
        }
    }

    private static void update(MessageDigest digest, long number) {
        for (int shift = 0; shift < Long.SIZE; shift += Byte.SIZE) {
            digest.update((byte) (number >>> shift));
        }
    }

    private static long number(byte[] hash, int from) {
        long number = 0;
        for (int i = 0; i < Long.BYTES; i++) {
            number = number << Byte.SIZE | hash[from + i] & 0xFF;
        }
        return number;
    }
}
