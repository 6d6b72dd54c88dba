package org.vastshelf.standins.directory;

import com.unboundid.ldap.sdk.Attribute;
import com.unboundid.ldap.sdk.Entry;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.vastshelf.standins.scenario.LargeFiles;

/** Twenty thousand people in groups, of which larger ones are made: teams, departments, everybody. */
public final class LargePeople {

    private static final int PEOPLE = 20_000;
    private static final int A_TEAM = 50;
    private static final int A_DEPARTMENT = 20;
    private static final String UNDER = "ou=groups," + EmbeddedDirectory.BASE;

    private LargePeople() {}

    /** Everybody, and the groups. */
    public static List<Entry> entries() {
        List<Entry> entries = new ArrayList<>();
        for (int number = 0; number < PEOPLE; number++) {
            String uid = LargeFiles.person(number);
            entries.add(new Entry(
                    person(number),
                    new Attribute("objectClass", "inetOrgPerson"),
                    new Attribute("uid", uid),
                    new Attribute("cn", "Person " + (number + 1)),
                    new Attribute("sn", uid),
                    new Attribute("mail", uid + "@larkmoor.example"),
                    new Attribute("userPassword", "larkmoor")));
        }
        int teams = PEOPLE / A_TEAM;
        for (int team = 0; team < teams; team++) {
            entries.add(group("team", team, LargePeople::person, A_TEAM));
        }
        for (int department = 0; department < teams / A_DEPARTMENT; department++) {
            entries.add(group("department", department, team -> name("team", team), A_DEPARTMENT));
        }
        return entries;
    }

    private static Entry group(String kind, int number, java.util.function.IntFunction<String> member, int each) {
        return new Entry(
                name(kind, number),
                new Attribute("objectClass", "groupOfNames"),
                new Attribute("cn", kind + "-" + (number + 1)),
                new Attribute(
                        "member",
                        IntStream.range(number * each, (number + 1) * each)
                                .mapToObj(member)
                                .toList()));
    }

    private static String name(String kind, int number) {
        return "cn=" + kind + "-" + (number + 1) + "," + UNDER;
    }

    private static String person(int number) {
        return "uid=" + LargeFiles.person(number) + ",ou=people," + EmbeddedDirectory.BASE;
    }
}
