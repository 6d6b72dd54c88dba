package org.vastshelf.core.estate;

import java.util.List;
import java.util.Optional;

/** Port to the directory of people and groups. */
public interface Directory {

    Optional<Person> person(String uid);

    /** Everybody, by name. */
    List<Person> people();

    /** True when the password is this person's. */
    boolean authenticates(String uid, String password);
}
