package org.vastshelf.app.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collection;
import java.util.List;
import java.util.Set;
import org.jooq.Field;
import org.jooq.SQLDialect;
import org.jooq.impl.DSL;
import org.junit.jupiter.api.Test;

class NumberStoreTest {

    private static final Field<Long> NUMBER = DSL.field("n", Long.class);

    private static String among(Collection<Long> some) {
        return DSL.using(SQLDialect.MARIADB).renderInlined(NumberStore.among(NUMBER, some));
    }

    @Test
    void runs_are_found_whatever_the_order() {
        assertThat(among(List.of(9L, 3L, 2L, 4L, 11L, 12L)))
                .isEqualTo("(n between 2 and 4 or n between 9 and 9 or n between 11 and 12)");
        assertThat(among(Set.of(Long.MAX_VALUE))).contains("between " + Long.MAX_VALUE);
    }

    @Test
    void of_none_no_number_is_one() {
        assertThat(among(List.of())).isIn("false", "(1 = 0)", "1 = 0");
    }
}
