package org.vastshelf.core.estate;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A whole estate written down, to be made again elsewhere: all things of the kinds that make it.
 *
 * @param format {@value #FORMAT}
 * @param version {@value #VERSION}
 * @param things by kind, each in the order of its keys
 */
public record EstateDefinition(String format, int version, Map<Kind<?>, List<?>> things) {

    public static final String FORMAT = "vast-shelf-estate";
    public static final int VERSION = 2;

    private static final int MOST_FINDINGS = 10;

    public EstateDefinition {
        if (!FORMAT.equals(format)) {
            throw new IllegalArgumentException("format is '" + format + "', must be '" + FORMAT + "'");
        }
        if (version != VERSION) {
            throw new IllegalArgumentException("version is " + version + ", must be " + VERSION);
        }
        Map<Kind<?>, List<?>> all = new LinkedHashMap<>();
        for (Kind<?> kind : kinds()) {
            all.put(kind, List.copyOf(things.getOrDefault(kind, List.of())));
        }
        things = all;
    }

    /** The kinds of things that a definition holds. */
    public static List<Kind<?>> kinds() {
        return Kinds.ALL.stream().filter(Kind::defined).toList();
    }

    public static EstateDefinition of(Estate estate) {
        Map<Kind<?>, List<?>> things = new LinkedHashMap<>();
        kinds().forEach(kind -> things.put(kind, List.copyOf(estate.all(kind).values())));
        return new EstateDefinition(FORMAT, VERSION, things);
    }

    @SuppressWarnings("unchecked")
    public <T> List<T> all(Kind<T> kind) {
        return (List<T>) things.getOrDefault(kind, List.of());
    }

    /**
     * The estate that is written down.
     *
     * @throws IllegalArgumentException naming everything that is there twice, at most ten findings
     */
    public Estate toEstate() {
        List<String> findings = new ArrayList<>();
        Estate made = Estate.EMPTY;
        for (Kind<?> kind : kinds()) {
            findings.addAll(twice(kind));
            made = with(made, kind);
        }
        if (!findings.isEmpty()) {
            throw new IllegalArgumentException(
                    String.join("; ", findings.stream().limit(MOST_FINDINGS).toList()));
        }
        // Orders that move a volume stay where they are.
        return made.with(
                Kinds.VOLUME,
                made.volumes().values().stream()
                        .map(v -> v.moving(Optional.empty()))
                        .toList());
    }

    private <T> Estate with(Estate estate, Kind<T> kind) {
        return estate.with(kind, all(kind));
    }

    private List<String> twice(Kind<?> kind) {
        Set<String> seen = new HashSet<>();
        return all(kind).stream()
                .map(kind::keyOf)
                .filter(key -> !seen.add(key))
                .map(key -> kind + " '" + key + "' is there twice")
                .toList();
    }
}
