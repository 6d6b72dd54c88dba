package org.vastshelf.app.kit;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.standins.scenario.DemoEstate;

class ScopeTest {

    private static final Estate DEMO = DemoEstate.create();

    @ParameterizedTest
    @CsvSource({
        "homes, fernhill, elm, homes, 1, 1",
        "elm, fernhill, elm, '', 1, 3",
        "fernhill, fernhill, '', '', 4, 8",
        "'', '', '', '', 7, 11",
        "nothing-of-that-name, '', '', '', 7, 11",
    })
    void a_name_narrows_to_what_it_names(
            String name, String server, String pool, String volume, int pools, int volumes) {
        Scope scope = Scope.of(DEMO, name);
        assertThat(scope).isEqualTo(new Scope(server, pool, volume));
        assertThat(DEMO.pools().values().stream().filter(scope::covers)).hasSize(pools);
        assertThat(DEMO.volumes().values().stream().filter(v -> scope.covers(DEMO, v)))
                .hasSize(volumes);
    }
}
