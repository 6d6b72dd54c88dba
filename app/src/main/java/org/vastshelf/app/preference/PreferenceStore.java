package org.vastshelf.app.preference;

import static org.vastshelf.app.store.generated.Tables.PREFERENCE;

import java.util.Locale;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.core.unit.UnitSystem;

/** How a person likes to read: remembered across sessions. */
@Component
public class PreferenceStore {

    private final DSLContext db;

    PreferenceStore(DSLContext db) {
        this.db = db;
    }

    public record Preference(UnitSystem units, String theme) {
        static final Preference DEFAULT = new Preference(UnitSystem.BINARY, "light");
    }

    public Preference of(String person) {
        return db.selectFrom(PREFERENCE)
                .where(PREFERENCE.PERSON.eq(person))
                .fetchOptional(row -> new Preference(UnitSystem.valueOf(row.getUnits()), row.getTheme()))
                .orElse(Preference.DEFAULT);
    }

    /**
     * Keeps what was chosen; an empty text leaves the other as it is.
     *
     * @throws IllegalArgumentException when units are neither binary nor decimal or the theme neither light nor dark
     */
    public void keep(String person, String units, String theme) {
        Preference before = of(person);
        require("units", units, "binary", "decimal");
        require("theme", theme, "light", "dark");
        UnitSystem chosen = units.isEmpty() ? before.units() : UnitSystem.valueOf(units.toUpperCase(Locale.ROOT));
        String look = theme.isEmpty() ? before.theme() : theme;
        db.insertInto(PREFERENCE)
                .values(person, chosen.name(), look)
                .onDuplicateKeyUpdate()
                .set(PREFERENCE.UNITS, chosen.name())
                .set(PREFERENCE.THEME, look)
                .execute();
    }

    private static void require(String what, String value, String one, String other) {
        if (!value.isEmpty() && !value.equals(one) && !value.equals(other)) {
            throw new IllegalArgumentException(what + " is '" + value + "', must be " + one + " or " + other);
        }
    }
}
