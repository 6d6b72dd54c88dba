package org.vastshelf.app.desk;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.core.estate.Person;

/**
 * Where one sits down, and what one may do there.
 *
 * @param person and share are chosen from lists, or found while they are typed where there are too many
 */
public record Chooser(Field person, Field share, Form make, Form save, Form folder) {

    private static final int MOST_CHOICES = 200;

    /** Nobody finds one of thousands in a list; they are typed and found by a part of their names. */
    static Chooser of(Typed typed, Seat seat, List<Person> people, List<String> shares) {
        Typed.Fields sit = typed.at("desk");
        Typed.Fields make = typed.at("/desk/make");
        Typed.Fields save = typed.at("/desk/save");
        Typed.Fields folder = typed.at("/desk/folder");
        Map<String, String> names = new LinkedHashMap<>();
        people.forEach(p -> names.put(p.uid(), p.name() + " (" + p.uid() + ")"));
        return new Chooser(
                (people.size() > MOST_CHOICES
                                ? found(sit.text("person", "Person", seat.person()), "choices-people")
                                : sit.select(
                                        "person",
                                        "Person",
                                        names.keySet(),
                                        Function.identity(),
                                        names::get,
                                        seat.person()))
                        .width("w-56"),
                (shares.size() > MOST_CHOICES
                                ? found(sit.text("share", "Share", seat.share()), "choices-shares")
                                : sit.select("share", "Share", shares, seat.share()))
                        .width("w-48"),
                Form.of(
                        make.action(),
                        "Make a file",
                        make.text("name", "Name of the file", "cut.mov").width("w-44"),
                        make.text("size", "Size", "1 GiB").width("w-28")),
                Form.of(
                                save.action(),
                                "Or a file of yours",
                                save.file("file", "File")
                                        .with("required", "required")
                                        .width("w-64"))
                        .button("Save it here"),
                Form.of(
                                folder.action(),
                                "Make a folder",
                                folder.text("folder", "Name of the folder", "").width("w-44"))
                        .button("Make it"));
    }

    private static Field found(Field field, String choices) {
        return field.with("list", choices);
    }
}
