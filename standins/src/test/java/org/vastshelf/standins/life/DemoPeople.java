package org.vastshelf.standins.life;

import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldif.LDIFReader;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.vastshelf.core.estate.Person;

/** The people of the demo's directory, as the file says that ships with it. */
public final class DemoPeople {

    private DemoPeople() {}

    public static List<Person> all() {
        Map<String, String> names = new HashMap<>();
        Map<String, Set<String>> groups = new HashMap<>();
        try (InputStream in = DemoPeople.class.getResourceAsStream("/larkmoor.ldif");
                LDIFReader ldif = new LDIFReader(in)) {
            for (Entry entry = ldif.readEntry(); entry != null; entry = ldif.readEntry()) {
                if (entry.hasAttribute("uid")) {
                    names.put(entry.getAttributeValue("uid"), entry.getAttributeValue("cn"));
                } else if (entry.hasAttribute("member")) {
                    for (String member : entry.getAttributeValues("member")) {
                        groups.computeIfAbsent(member.substring(4, member.indexOf(',')), none -> new HashSet<>())
                                .add(entry.getAttributeValue("cn"));
                    }
                }
            }
        } catch (IOException | com.unboundid.ldif.LDIFException e) {
            throw new IllegalStateException(e);
        }
        List<Person> people = new ArrayList<>();
        names.forEach((uid, name) -> people.add(new Person(uid, name, "", groups.getOrDefault(uid, Set.of()))));
        return people;
    }
}
