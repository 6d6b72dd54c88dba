package org.vastshelf.core.layout;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.vastshelf.core.unit.Bytes;

/**
 * Where the data of a layout lie on its members. Data are cut into strips; a row of strips lies at the same place on
 * every member of a part, and its protection moves on by one member with each row (the "left-symmetric" arrangement of
 * Chen et al. 1994). Parts of a layout in groups take turns row by row; bands of a terraced one follow each other.
 *
 * <p>Every byte of data lies in exactly one place, in a mirror in one place on each member.
 */
public final class Striping {

    /** Length of a strip. */
    public static final Bytes STRIP = Bytes.of(64 * Bytes.KIB);

    private final List<Bytes> members;
    private final LayoutShape shape;
    private final long strip;

    /**
     * A layout laid out.
     *
     * @param members usable bytes of each member, in the order in which they were put together
     * @param shape of the layout over these members
     */
    public Striping(List<Bytes> members, LayoutShape shape) {
        this(members, shape, STRIP);
    }

    Striping(List<Bytes> members, LayoutShape shape, Bytes strip) {
        this.members = List.copyOf(members);
        this.shape = shape;
        this.strip = strip.value();
    }

    /** What a byte of a member is for. */
    public sealed interface Spot {

        /** A byte of data, by its address from the beginning of the layout's data. */
        record Data(long address) implements Spot {}

        /** A byte that protects a row, of which the data begin at this address. */
        record Protection(long rowBegins) implements Spot {}

        /** Nothing: the layout has no use for it. */
        record Nothing() implements Spot {}
    }

    /**
     * The members that protect each other at one place.
     *
     * @param members by their place in the layout
     * @param spare how many of them can be unreadable there without anything being lost
     */
    public record Row(List<Integer> members, int spare) {}

    /** The stretch of a member in which a place lies. */
    private record Stretch(
            List<Integer> members, int protection, long begins, long length, long dataBegins, int part, int parts) {}

    /** What lies at a place of a member. */
    public Spot at(int member, long offset) {
        return stretch(member, offset) instanceof Stretch s
                ? at(s, s.members.indexOf(member), offset - s.begins)
                : new Spot.Nothing();
    }

    /** Who protects each other at a place of a member; nobody where nothing lies. */
    public Row rowAt(int member, long offset) {
        return stretch(member, offset) instanceof Stretch s ? new Row(s.members, s.protection) : new Row(List.of(), 0);
    }

    private Spot at(Stretch s, int place, long within) {
        int drives = s.members.size();
        int columns = drives - s.protection;
        long row = within / strip;
        long length = Math.min(strip, s.length - row * strip);
        long rowBegins = s.dataBegins + (row * strip * s.parts + s.part * length) * columns;
        if (columns == 1) {
            return new Spot.Data(rowBegins + within % strip);
        }
        int first = (int) (row % drives);
        int turn = Math.floorMod(place - first, drives);
        return turn < s.protection
                ? new Spot.Protection(rowBegins)
                : new Spot.Data(rowBegins + (turn - s.protection) * length + within % strip);
    }

    private @org.jspecify.annotations.Nullable Stretch stretch(int member, long offset) {
        return switch (shape) {
            case LayoutShape.Groups groups -> inGroups(groups, member, offset);
            case LayoutShape.Bands bands -> inBands(bands, member, offset);
        };
    }

    private static @org.jspecify.annotations.Nullable Stretch inGroups(
            LayoutShape.Groups groups, int member, long offset) {
        if (offset >= groups.memberBytes().value()) {
            return null;
        }
        int part = member / groups.drivesEach();
        int first = part * groups.drivesEach();
        List<Integer> peers =
                IntStream.range(first, first + groups.drivesEach()).boxed().toList();
        return new Stretch(peers, groups.parity(), 0, groups.memberBytes().value(), 0, part, groups.groups());
    }

    private @org.jspecify.annotations.Nullable Stretch inBands(LayoutShape.Bands bands, int member, long offset) {
        if (offset >= members.get(member).value()) {
            return null;
        }
        long begins = 0;
        long data = 0;
        for (LayoutShape.Band band : bands.bands()) {
            long ends = begins + band.thickness().value();
            if (offset < ends) {
                return band.isStranded()
                        ? null
                        : new Stretch(
                                reaching(ends),
                                band.protection(),
                                begins,
                                band.thickness().value(),
                                data,
                                0,
                                1);
            }
            begins = ends;
            data += band.data().value();
        }
        return null;
    }

    private List<Integer> reaching(long height) {
        List<Integer> reaching = new ArrayList<>();
        for (int i = 0; i < members.size(); i++) {
            if (members.get(i).value() >= height) {
                reaching.add(i);
            }
        }
        return reaching;
    }
}
