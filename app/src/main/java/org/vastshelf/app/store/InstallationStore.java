package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.INSTALLATION;

import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.util.function.SingletonSupplier;

/** By what this installation, with all its nodes, is told from others. */
@Component
public class InstallationStore {

    private final DSLContext db;
    private final Supplier<String> id;

    InstallationStore(DSLContext db) {
        this.db = db;
        this.id = SingletonSupplier.of(
                () -> db.select(INSTALLATION.ID).from(INSTALLATION).fetchSingle(INSTALLATION.ID));
    }

    /** 32 hexadecimal digits, made when the database was set up. */
    public String id() {
        return id.get();
    }

    /** Waits until nobody else of all nodes is alone, and is so until the transaction ends. */
    public void alone() {
        db.select(INSTALLATION.ID).from(INSTALLATION).forUpdate().fetch();
    }
}
