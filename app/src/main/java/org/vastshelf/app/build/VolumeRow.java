package org.vastshelf.app.build;

import org.vastshelf.app.kit.Bar;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;

/** A volume in a list. */
public record VolumeRow(String name, String pool, String kind, Figure size, Figure used, Bar bar) {

    private static final int WIDTH = 80;

    static VolumeRow of(Figures fmt, Usage held, Volume volume) {
        Bytes used = held.of(volume.name()).used();
        return new VolumeRow(
                volume.name(),
                volume.pool(),
                kind(volume),
                fmt.largeFigure(fmt.key("volume", volume.name(), "size"), volume.size()),
                fmt.largeFigure(fmt.key("volume", volume.name(), "used"), used),
                Bar.of(used.shareOf(volume.size()), WIDTH, Mark.State.FINE));
    }

    static String kind(Volume volume) {
        return volume.thin() ? "thin" : "thick";
    }
}
