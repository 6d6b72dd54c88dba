package org.vastshelf.core.estate;

/** How much throughput a pool gives for each TiB it has. */
public enum PaceClass {
    STEADY("Steady", 16, 2_100),
    BRISK("Brisk", 64, 5_900),
    SWIFT("Swift", 256, 16_400);

    private final String title;
    private final int mibpsPerTib;
    private final int centsPerTibMonth;

    PaceClass(String title, int mibpsPerTib, int centsPerTibMonth) {
        this.title = title;
        this.mibpsPerTib = mibpsPerTib;
        this.centsPerTibMonth = centsPerTibMonth;
    }

    public String title() {
        return title;
    }

    public int mibpsPerTib() {
        return mibpsPerTib;
    }

    /** What the managed service of the demo takes for a TiB reserved for a month, in cents. */
    public int centsPerTibMonth() {
        return centsPerTibMonth;
    }
}
