package org.vastshelf.core.estate;

import org.vastshelf.core.layout.DriveRates;

/** Kinds of drive with what is assumed of them where nothing was measured. */
public enum DriveKind {
    SPINNING("spinning", new DriveRates(0.015, 1e-15, 120)),
    SOLID_STATE("solid-state", new DriveRates(0.008, 1e-17, 400));

    private final String title;
    private final DriveRates rates;

    DriveKind(String title, DriveRates rates) {
        this.title = title;
        this.rates = rates;
    }

    public String title() {
        return title;
    }

    public DriveRates rates() {
        return rates;
    }
}
