package org.vastshelf.standins.content;

/** What the bytes of a stream look like behind its beginning, and so how far they can be packed. */
enum Body {
    /** Written language. */
    PROSE(new Prose()),
    /** Readings of instruments, one in a line. */
    READINGS(new Readings()),
    /** Sequences of the four letters, with the certainty of each. */
    BASES(new Bases()),
    /** Lines and corners of a drawing. */
    DRAWING(new Drawing()),
    /** Pages of a database, which are seldom full. */
    PAGES(new DatabasePages()),
    /** Scans that nobody packed: neighbouring points are alike. */
    SCAN(new Scan()),
    /** What is packed already: pictures, sound, film, archives. */
    PACKED(new Packed());

    /** Bytes that are made together. */
    static final int PAGE = 4_096;

    private final Maker maker;

    Body(Maker maker) {
        this.maker = maker;
    }

    /** Makes one page of a stream. */
    interface Maker {

        /** @param page all of it is written to, from 0 to {@link Body#PAGE} */
        void make(long stream, long number, byte[] page);
    }

    void make(long stream, long number, byte[] page) {
        maker.make(stream, number, page);
    }
}
