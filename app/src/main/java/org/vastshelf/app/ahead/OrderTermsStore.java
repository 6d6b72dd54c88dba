package org.vastshelf.app.ahead;

import static org.vastshelf.app.store.generated.Tables.ORDER_TERMS;

import java.util.HashMap;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.forecast.OrderPlan.Terms;
import org.vastshelf.core.unit.Bytes;

/** Keeps how room is bought for each file server. */
@Component
class OrderTermsStore {

    /** Hardware that has to be delivered and built in. */
    private static final Terms HARDWARE = new Terms(90, Bytes.tib(20), 10);
    /** Room of a service, which is there within a week. */
    private static final Terms SERVICE = new Terms(7, Bytes.tib(1), 10);

    private final DSLContext db;

    OrderTermsStore(DSLContext db) {
        this.db = db;
    }

    /** By file server, for those of which it was said. */
    Map<String, Terms> all() {
        Map<String, Terms> terms = new HashMap<>();
        db.selectFrom(ORDER_TERMS)
                .forEach(row -> terms.put(
                        row.getServer(),
                        new Terms(row.getLeadDays(), Bytes.of(row.getLotBytes()), row.getRiskPercent())));
        return terms;
    }

    /** What is assumed as long as nobody says otherwise. */
    static Terms assumed(FileServer server) {
        return server.managed() ? SERVICE : HARDWARE;
    }

    void put(String server, Terms terms) {
        db.insertInto(ORDER_TERMS)
                .set(ORDER_TERMS.SERVER, server)
                .set(ORDER_TERMS.LEAD_DAYS, terms.leadDays())
                .set(ORDER_TERMS.LOT_BYTES, terms.lot().value())
                .set(ORDER_TERMS.RISK_PERCENT, terms.riskPercent())
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
    }
}
