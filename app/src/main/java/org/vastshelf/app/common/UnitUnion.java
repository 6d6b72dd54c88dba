package org.vastshelf.app.common;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.vastshelf.core.saving.UnitKind;
import org.vastshelf.core.saving.UnitRun;
import org.vastshelf.core.saving.UnitUses.Span;

/** Units that some versions of files use together. */
public final class UnitUnion {

    private final Map<UnitKind, TreeMap<Long, Span>> spans;

    public UnitUnion() {
        this(new HashMap<>());
    }

    UnitUnion(Map<UnitKind, TreeMap<Long, Span>> spans) {
        this.spans = spans;
    }

    /** One version more. */
    public void add(List<UnitRun> version) {
        version.forEach(run -> CommonUnits.apply(spans.computeIfAbsent(run.kind(), kind -> new TreeMap<>()), run, 1));
    }

    /** What they take, each as often as its kind is kept. */
    public long bytes() {
        long bytes = 0;
        for (Map.Entry<UnitKind, TreeMap<Long, Span>> kind : spans.entrySet()) {
            for (Span span : kind.getValue().values()) {
                long copies = kind.getKey().once() ? 1 : span.uses();
                bytes += (span.past() - span.first()) * copies * kind.getKey().packed();
            }
        }
        return bytes;
    }
}
