package org.vastshelf.app.store;

import org.springframework.stereotype.Component;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * Core's types as documents in the database. What an earlier version wrote may lack parts or have some too many; the
 * types give those their meaning. What comes from outside is read strictly instead.
 */
@Component
public class StoredJson {

    private final JsonMapper mapper;

    public StoredJson(JsonMapper strict) {
        this.mapper = strict.rebuild()
                .disable(
                        DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES,
                        DeserializationFeature.FAIL_ON_MISSING_CREATOR_PROPERTIES,
                        DeserializationFeature.FAIL_ON_NULL_CREATOR_PROPERTIES,
                        DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                .build();
    }

    public <T> T read(String document, Class<T> type) {
        return mapper.readValue(document, type);
    }

    /** Writes a thing as its own type. */
    public String write(Object thing) {
        return mapper.writeValueAsString(thing);
    }

    /** Writes a thing as one case of a sealed type, so that it can be read as that. */
    public <T> String write(Class<T> type, T thing) {
        return mapper.writerFor(type).writeValueAsString(thing);
    }
}
