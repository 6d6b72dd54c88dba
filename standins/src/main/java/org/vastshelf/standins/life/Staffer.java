package org.vastshelf.standins.life;

import java.util.List;
import java.util.Random;
import org.vastshelf.core.estate.Person;

/**
 * Somebody of the trust who works with files, with habits of their own.
 *
 * @param department the group they work in; empty for none
 * @param fileGroup the group that their files get
 * @param early by how many minutes they begin before nine; less than none for later
 * @param tidy from 0 to 2: how they name things
 */
public record Staffer(String uid, String department, String fileGroup, int early, int tidy) {

    private static final List<String> DEPARTMENTS = List.of(
            "herbarium-imaging",
            "seed-genomics",
            "living-collections",
            "education-film",
            "grounds",
            "people-finance",
            "interns",
            "volunteers");

    static Staffer of(Person person) {
        Random habits = new Random(person.uid().hashCode() * 7_919L);
        return new Staffer(
                person.uid(),
                DEPARTMENTS.stream()
                        .filter(person.groups()::contains)
                        .findFirst()
                        .orElse(""),
                person.fileGroup(),
                habits.nextInt(150) - 75,
                habits.nextInt(3));
    }
}
