package org.vastshelf.app.content;

import static org.vastshelf.app.store.generated.Tables.COLD_OBJECT;

import java.util.Collection;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.core.content.Contents;

/** What files held when they left, by which it is known that they hold the same still. */
@Component
public class OriginStore {

    private final DSLContext db;

    OriginStore(DSLContext db) {
        this.db = db;
    }

    /** What contents were before they left; what is here, or came from a bucket alone, is what it is. */
    public Contents of(Contents contents) {
        if (!contents.isCold()) {
            return contents;
        }
        Map<Long, byte[]> known = codes(contents.kept());
        return known.isEmpty()
                ? contents
                : ContentsCode.read(known.values().iterator().next());
    }

    /** Contents before they left, as they were written down, by the numbers of their objects. */
    public Map<Long, byte[]> codes(Collection<Long> numbers) {
        return numbers.isEmpty()
                ? Map.of()
                : db.select(COLD_OBJECT.KEPT_NO, COLD_OBJECT.ORIGIN)
                        .from(COLD_OBJECT)
                        .where(COLD_OBJECT.KEPT_NO.in(numbers), COLD_OBJECT.ORIGIN.ne(ContentsCode.ELSEWHERE))
                        .fetchMap(COLD_OBJECT.KEPT_NO, COLD_OBJECT.ORIGIN);
    }
}
