package org.vastshelf.core.estate;

/** How much throughput a pool gives for each TiB it has, by name; the figures are its file server's. */
public enum PaceClass {
    STEADY("Steady"),
    BRISK("Brisk"),
    SWIFT("Swift");

    private final String title;

    PaceClass(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
