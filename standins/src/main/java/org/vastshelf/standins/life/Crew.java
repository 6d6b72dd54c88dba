package org.vastshelf.standins.life;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.vastshelf.core.estate.Person;

/** Everybody who works with files, and the instruments that do. */
public final class Crew {

    /** Instruments and hosts that save without anybody there. */
    private static final String SERVICES = "services";

    private final Map<String, Person> entries = new TreeMap<>();
    private final List<Staffer> people;
    private final Map<String, Staffer> all = new TreeMap<>();
    private final Map<String, List<Staffer>> departments;

    private Crew(List<Person> everybody) {
        everybody.forEach(person -> {
            entries.put(person.uid(), person);
            all.put(person.uid(), Staffer.of(person));
        });
        this.people = everybody.stream()
                .filter(person -> !person.groups().contains(SERVICES))
                .map(person -> all.get(person.uid()))
                .sorted(Comparator.comparing(Staffer::uid))
                .toList();
        this.departments = people.stream().collect(Collectors.groupingBy(Staffer::department));
    }

    public static Crew of(List<Person> everybody) {
        return new Crew(everybody);
    }

    public List<Staffer> people() {
        return people;
    }

    /** Those of a department; everybody where it has nobody. */
    List<Staffer> of(String department) {
        return departments.getOrDefault(department, people);
    }

    /** One by name; where there is nobody of that name, the first of a department. */
    Staffer named(String uid, String department) {
        Staffer found = all.get(uid);
        return found == null ? of(department).getFirst() : found;
    }

    /** How the directory knows somebody. */
    Person person(Staffer staffer) {
        return entries.get(staffer.uid());
    }

    static <T> T one(Random random, List<T> many) {
        return many.get(random.nextInt(many.size()));
    }
}
