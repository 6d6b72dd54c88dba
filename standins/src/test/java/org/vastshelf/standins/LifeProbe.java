package org.vastshelf.standins;

import java.util.*;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.vastshelf.core.estate.Person;
import org.vastshelf.standins.life.*;
import org.vastshelf.standins.life.Crew;
import org.vastshelf.standins.life.LivingFile;
import org.vastshelf.standins.life.ShareLife;

class LifeProbe {
    public static void main(String[] a) throws Exception {
        List<Person> people = new ArrayList<>();
        Map<String, Set<String>> g = new HashMap<>();
        String grp = null;
        List<String> lines = java.nio.file.Files.readAllLines(
                java.nio.file.Path.of("/work/main/standins/src/main/resources/larkmoor.ldif"));
        for (String l : lines) {
            if (l.startsWith("cn: ")) grp = l.substring(4);
            if (l.startsWith("member: uid="))
                g.computeIfAbsent(l.substring(12, l.indexOf(',')), k -> new TreeSet<>())
                        .add(grp);
        }
        for (String l : lines)
            if (l.startsWith("uid: ")) {
                String u = l.substring(5);
                people.add(new Person(u, u, "", g.getOrDefault(u, Set.of())));
            }
        Crew crew = Crew.of(people);
        long n = 0;
        for (String s : List.of(
                "herbarium", "film", "sequences", "homes", "office", "plans", "fieldlogs", "specimens-db", "press")) {
            long t = System.nanoTime();
            ShareLife life = ShareLife.of(s, crew);
            n += life.files().size();
            long cut = java.time.LocalDate.of(2026, 1, 31).toEpochDay() * 86400;
            long rec = life.files().stream().filter(f -> f.modified() >= cut).count();
            long rb = life.files().stream()
                    .filter(f -> f.modified() >= cut)
                    .mapToLong(LivingFile::bytes)
                    .sum();
            System.out.printf(
                    "%-14s %7d files %8.1f GiB %6d folders, recent %6d %8.1f GiB, %d ms%n",
                    s,
                    life.files().size(),
                    life.bytes() / 1073741824.0,
                    life.folders().size(),
                    rec,
                    rb / 1073741824.0,
                    (System.nanoTime() - t) / 1000000);
            Random r = new Random(4);
            for (int i = 0; i < 4; i++) {
                LivingFile f = life.files().get(r.nextInt(life.files().size()));
                System.out.println("   " + f.path() + " " + f.bytes() + " "
                        + f.owner().uid() + " " + java.time.Instant.ofEpochSecond(f.modified()));
            }
        }
        System.out.println(n);
    }
}
