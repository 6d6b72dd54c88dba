package org.vastshelf.app.build;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileSystemKind;
import org.vastshelf.core.estate.Pace;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.SizeText;

/** What was typed about a volume. */
record VolumeForm(
        String name,
        String pool,
        String size,
        Boolean thin,
        Integer blockSize,
        Integer alarmPercent,
        @Nullable FileSystemKind kind,
        Boolean encrypted,
        String mibps,
        String catalogue) {
    private static final List<Integer> BLOCKS =
            IntStream.rangeClosed(12, 20).mapToObj(power -> 1 << power).toList();

    VolumeForm {
        kind = kind == null ? FileSystemKind.GUARDED : kind;
        encrypted = Boolean.TRUE.equals(encrypted);
        mibps = mibps == null ? "" : mibps.strip();
        catalogue = catalogue == null ? "" : catalogue;
        thin = Boolean.TRUE.equals(thin);
        blockSize = blockSize == null ? Volume.DEFAULT_BLOCK : blockSize;
        alarmPercent = alarmPercent == null ? Volume.DEFAULT_ALARM : alarmPercent;
        name = name == null ? "" : name.strip();
    }

    Volume volume(String named) {
        return new Volume(
                named,
                pool,
                AtField.read("size", () -> SizeText.parse("volume size", size, Volume.LEAST, Volume.MOST)),
                thin,
                blockSize,
                alarmPercent,
                kind,
                encrypted,
                pace(),
                Optional.empty());
    }

    /** The fields in which it is typed. */
    List<Field> fields(Figures fmt, Typed typed, Estate estate, Usage held, List<CatalogueStore.Catalogue> catalogues) {
        Typed.Fields fields = typed.at("/build/new/volume");
        List<String> files = new ArrayList<>(List.of(""));
        catalogues.forEach(c -> files.add(c.name()));
        return List.of(
                fields.first(fields.text("name", "Name of the volume", name)),
                fields.select(
                        "pool",
                        "Pool",
                        estate.pools().keySet(),
                        Function.identity(),
                        p -> room(fmt, estate, held, estate.pools().get(p)),
                        pool),
                fields.text("size", "Size", size).hint("such as 4 TiB or 500 GB"),
                fields.radios(
                        "thin",
                        "Room",
                        List.of(true, false),
                        String::valueOf,
                        t -> t ? "thin: takes what it uses" : "thick: takes all of it at once",
                        thin),
                fields.select(
                        "kind",
                        "File system ∎ can't be changed later",
                        Arrays.asList(FileSystemKind.values()),
                        FileSystemKind::name,
                        FileSystemKind::title,
                        kind),
                fields.tick("encrypted", "encrypted where it lies ∎", encrypted),
                fields.select(
                        "blockSize",
                        "Block size ∎ can't be changed later",
                        BLOCKS,
                        String::valueOf,
                        b -> b / 1024 + " KiB",
                        blockSize),
                fields.select(
                        "catalogue",
                        "Fit the block size to the files of",
                        files,
                        Function.identity(),
                        c -> c.isEmpty() ? "no catalogue" : c,
                        catalogue),
                fields.text("mibps", "Pace by hand, MiB/s", mibps).hint("empty: by size"),
                fields.number("alarmPercent", "Alarm level, per cent used", alarmPercent)
                        .between(1, 100));
    }

    private static String room(Figures fmt, Estate estate, Usage held, Pool pool) {
        return pool.name() + ", " + fmt.size(Ledgers.ofPool(estate, held, pool).free()) + " free of "
                + fmt.size(Ledgers.usable(estate, pool));
    }

    private Pace pace() {
        if (mibps.isEmpty()) {
            return Pace.BY_SIZE;
        }
        if (!mibps.matches("\\d{1,7}")) {
            throw new IllegalArgumentException("pace is '" + mibps + "', must be whole MiB/s, or empty for by size");
        }
        return new Pace(true, Integer.parseInt(mibps));
    }
}
