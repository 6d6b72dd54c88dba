package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.VOLUME_TEMPLATE;

import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.core.definition.VolumeTemplate;

/** Keeps volume templates. */
@Component
public class TemplateStore {

    private final DSLContext db;
    private final StoredJson json;

    TemplateStore(DSLContext db, StoredJson json) {
        this.db = db;
        this.json = json;
    }

    public List<VolumeTemplate> all() {
        return db.selectFrom(VOLUME_TEMPLATE)
                .orderBy(VOLUME_TEMPLATE.NAME)
                .fetch(row -> json.read(row.getBody(), VolumeTemplate.class));
    }

    public Optional<VolumeTemplate> find(String name) {
        return all().stream().filter(t -> t.name().equals(name)).findFirst();
    }

    /** Keeps a template, in place of one of the same name. */
    public void keep(VolumeTemplate template) {
        String body = json.write(template);
        db.insertInto(VOLUME_TEMPLATE)
                .values(template.name(), body)
                .onDuplicateKeyUpdate()
                .set(VOLUME_TEMPLATE.BODY, body)
                .execute();
    }

    public void remove(String name) {
        db.deleteFrom(VOLUME_TEMPLATE).where(VOLUME_TEMPLATE.NAME.eq(name)).execute();
    }
}
