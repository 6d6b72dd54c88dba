package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.ESTATE_OBJECT;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.generated.tables.records.EstateObjectRecord;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Kinds;

/** Things as documents, one row for each, with the version in which it was last written. */
@Component
class DocumentStore implements EstatePart {

    /** Kinds that are progress and have tables of their own. */
    private static final List<Kind<?>> ELSEWHERE = List.of(Kinds.REBUILD, Kinds.SCRUB);

    private final DSLContext db;
    private final StoredJson json;

    DocumentStore(DSLContext db, StoredJson json) {
        this.db = db;
        this.json = json;
    }

    static List<Kind<?>> kinds() {
        return Kinds.ALL.stream().filter(kind -> !ELSEWHERE.contains(kind)).toList();
    }

    @Override
    public Estate read(Estate known, long since) {
        Map<String, List<EstateObjectRecord>> rows = new HashMap<>();
        db.selectFrom(ESTATE_OBJECT)
                .where(ESTATE_OBJECT.VERSION.gt(since))
                .forEach(row -> rows.computeIfAbsent(row.getKind(), kind -> new ArrayList<>())
                        .add(row));
        Estate next = known;
        for (Kind<?> kind : kinds()) {
            next = with(next, kind, rows.getOrDefault(kind.name(), List.of()));
        }
        return next;
    }

    private <T> Estate with(Estate estate, Kind<T> kind, List<EstateObjectRecord> rows) {
        List<String> gone = rows.stream()
                .filter(row -> row.getGone() != 0)
                .map(EstateObjectRecord::getName)
                .toList();
        List<T> there = rows.stream()
                .filter(row -> row.getGone() == 0)
                .map(row -> json.read(row.getBody(), kind.type()))
                .toList();
        return estate.without(kind, gone).with(kind, there);
    }

    @Override
    public void write(Estate before, Estate after, long version) {
        kinds().forEach(kind -> write(kind, before.all(kind), after.all(kind), version));
    }

    private void write(Kind<?> kind, Map<String, ?> before, Map<String, ?> after, long version) {
        if (before == after) {
            return;
        }
        before.keySet().stream()
                .filter(name -> !after.containsKey(name))
                .forEach(name -> put(kind, name, "", 1, version));
        after.forEach((name, thing) -> {
            if (!thing.equals(before.get(name))) {
                put(kind, name, json.write(thing), 0, version);
            }
        });
    }

    private void put(Kind<?> kind, String name, String body, int gone, long version) {
        db.insertInto(ESTATE_OBJECT)
                .set(ESTATE_OBJECT.KIND, kind.name())
                .set(ESTATE_OBJECT.NAME, name)
                .set(ESTATE_OBJECT.NAME_HASH, hash(name))
                .set(ESTATE_OBJECT.BODY, body)
                .set(ESTATE_OBJECT.GONE, gone)
                .set(ESTATE_OBJECT.VERSION, version)
                .onDuplicateKeyUpdate()
                .set(ESTATE_OBJECT.BODY, body)
                .set(ESTATE_OBJECT.GONE, gone)
                .set(ESTATE_OBJECT.VERSION, version)
                .execute();
    }

    /** Nobody else who locks this thing goes on before the transaction has ended. */
    void lock(Kind<?> kind, String name) {
        db.select(ESTATE_OBJECT.KIND)
                .from(ESTATE_OBJECT)
                .where(ESTATE_OBJECT.KIND.eq(kind.name()), ESTATE_OBJECT.NAME_HASH.eq(hash(name)))
                .forUpdate()
                .fetch();
    }

    private static byte[] hash(String name) {
        return Digests.sixteen(name.getBytes(StandardCharsets.UTF_8));
    }
}
