package org.vastshelf.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class VersionTest {

    private static final List<Instant> TAKEN = List.of(at(10), at(20), at(30));

    private static Instant at(long second) {
        return Instant.ofEpochSecond(second);
    }

    @ParameterizedTest
    @CsvSource({
        "5,10,-",
        "5,11,0-0",
        "10,20,0-0",
        "10,21,0-1",
        "11,20,-",
        "11,31,1-2",
        "30,31,2-2",
        "31,40,-",
        "1,99,0-2"
    })
    void it_is_held_by_those_taken_while_it_lived(long born, long died, String held) {
        String found = new Version(at(born), Optional.of(at(died)), 7)
                .cell(TAKEN)
                .map(cell -> cell.first() + "-" + cell.last())
                .orElse("-");
        assertThat(found).isEqualTo(held);
    }

    @Test
    void what_lives_is_held_by_no_snapshot_and_death_follows_birth() {
        assertThat(new Version(at(1), Optional.empty(), 7).cell(TAKEN)).isEmpty();
        assertThatThrownBy(() -> new Version(at(5), Optional.of(at(5)), 7)).hasMessageContaining("must be after born");
        assertThatThrownBy(() -> new Version(at(5), Optional.empty(), -1)).hasMessageContaining("bytes is -1");
    }
}
