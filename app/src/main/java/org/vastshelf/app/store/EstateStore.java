package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.ESTATE_OBJECT;
import static org.vastshelf.app.store.generated.Tables.ESTATE_VERSION;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.limit.LimitRule;
import tools.jackson.databind.json.JsonMapper;

/** Keeps the estate: read whole, changed under a lock, written as the difference between before and after. */
@Component
public class EstateStore {

    private final DSLContext db;
    private final JsonMapper json;
    private volatile Versioned cached = new Versioned(-1, Estate.EMPTY);

    EstateStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    private record Versioned(long version, Estate estate) {}

    /** The estate as it is now. */
    public Estate load() {
        long version = db.select(ESTATE_VERSION.VERSION).from(ESTATE_VERSION).fetchSingle(ESTATE_VERSION.VERSION);
        Versioned known = cached;
        if (known.version != version) {
            known = new Versioned(version, read());
            cached = known;
        }
        return known.estate;
    }

    /** Applies a pure change to the estate, one at a time across all nodes, and returns the result. */
    @Transactional
    public Estate change(UnaryOperator<Estate> change) {
        db.select(ESTATE_VERSION.VERSION).from(ESTATE_VERSION).forUpdate().fetchSingle();
        Estate before = read();
        Estate after = change.apply(before);
        writeDifference(before, after);
        db.update(ESTATE_VERSION)
                .set(ESTATE_VERSION.VERSION, ESTATE_VERSION.VERSION.plus(1))
                .execute();
        return after;
    }

    private Estate read() {
        Map<String, Map<String, String>> kinds = new LinkedHashMap<>();
        db.selectFrom(ESTATE_OBJECT)
                .orderBy(ESTATE_OBJECT.KIND, ESTATE_OBJECT.NAME)
                .forEach(row -> kinds.computeIfAbsent(row.getKind(), k -> new LinkedHashMap<>())
                        .put(row.getName(), row.getBody()));
        return new Estate(
                objects(kinds, "site", Site.class),
                objects(kinds, "server", FileServer.class),
                objects(kinds, "enclosure", Enclosure.class),
                objects(kinds, "drive", Drive.class),
                objects(kinds, "pool", Pool.class),
                objects(kinds, "volume", Volume.class),
                objects(kinds, "share", Share.class),
                objects(kinds, "limit", LimitRule.class),
                objects(kinds, "arrival", Arrival.class),
                objects(kinds, "rebuild", Rebuild.class),
                objects(kinds, "scrub", Scrub.class));
    }

    private <T> Map<String, T> objects(Map<String, Map<String, String>> kinds, String kind, Class<T> type) {
        Map<String, T> objects = new LinkedHashMap<>();
        kinds.getOrDefault(kind, Map.of()).forEach((name, body) -> objects.put(name, json.readValue(body, type)));
        return objects;
    }

    private void writeDifference(Estate before, Estate after) {
        difference("site", before.sites(), after.sites());
        difference("server", before.servers(), after.servers());
        difference("enclosure", before.enclosures(), after.enclosures());
        difference("drive", before.drives(), after.drives());
        difference("pool", before.pools(), after.pools());
        difference("volume", before.volumes(), after.volumes());
        difference("share", before.shares(), after.shares());
        difference("limit", before.limits(), after.limits());
        difference("arrival", before.arrivals(), after.arrivals());
        difference("rebuild", before.rebuilds(), after.rebuilds());
        difference("scrub", before.scrubs(), after.scrubs());
    }

    private void difference(String kind, Map<String, ?> before, Map<String, ?> after) {
        before.keySet().stream()
                .filter(name -> !after.containsKey(name))
                .forEach(name -> db.deleteFrom(ESTATE_OBJECT)
                        .where(ESTATE_OBJECT.KIND.eq(kind), ESTATE_OBJECT.NAME.eq(name))
                        .execute());
        after.forEach((name, thing) -> {
            if (!thing.equals(before.get(name))) {
                String body = json.writeValueAsString(thing);
                db.insertInto(ESTATE_OBJECT)
                        .values(kind, name, body)
                        .onDuplicateKeyUpdate()
                        .set(ESTATE_OBJECT.BODY, body)
                        .execute();
            }
        });
    }
}
