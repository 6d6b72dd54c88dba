package org.vastshelf.core.estate;

import org.vastshelf.core.layout.DriveRates;

/** Kinds of drive with what is assumed of them where nothing was measured. */
public enum DriveKind {
    SPINNING("spinning", PaceClass.STEADY, new DriveRates(0.015, 1e-15, 120)),
    SOLID_STATE("solid-state", PaceClass.SWIFT, new DriveRates(0.008, 1e-17, 400));

    private final String title;
    private final PaceClass pace;
    private final DriveRates rates;

    DriveKind(String title, PaceClass pace, DriveRates rates) {
        this.title = title;
        this.pace = pace;
        this.rates = rates;
    }

    public String title() {
        return title;
    }

    /** What a pool of such drives gives for each TiB. */
    public PaceClass pace() {
        return pace;
    }

    public DriveRates rates() {
        return rates;
    }
}
