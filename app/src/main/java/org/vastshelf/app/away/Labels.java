package org.vastshelf.app.away;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.Base64;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.ComeBack;
import org.vastshelf.core.estate.FilePath;

/**
 * The metadata of an object: all that a file needs to be there again, from the bucket alone. Headers take plain
 * characters only, so that names stand in Base64.
 */
final class Labels {

    /** All labels together have two thousand bytes; of a path there are as many as this. */
    static final int LONGEST_PATH = 1_000;

    private Labels() {}

    /** @param by the installation that writes it */
    static Map<String, String> of(AwayObject object, String by) {
        Map<String, String> told = new LinkedHashMap<>();
        told.put("by", by);
        told.put("form", object.form().name());
        told.put("share", text(object.share()));
        told.put("path", text(object.path().text()));
        told.put("owner", text(object.file().owner()));
        told.put("group", text(object.file().group()));
        told.put("bytes", String.valueOf(object.bytes()));
        told.put("body", String.valueOf(object.body()));
        told.put("sha256", HexFormat.of().formatHex(object.sha256()));
        told.put("modified", String.valueOf(object.file().modified()));
        told.put("accessed", String.valueOf(object.file().accessed()));
        told.put("left", object.left().toString());
        told.put("keep", String.valueOf(object.keepDays()));
        told.put(
                "back",
                object.back().manner() + " " + object.back().reads() + " "
                        + object.back().withinDays());
        if (object.isSealed()) {
            told.put("sealing", object.sealing());
        }
        return told;
    }

    /** The installation that wrote an object. */
    static Optional<String> by(Map<String, String> told) {
        return Optional.ofNullable(told.get("by"));
    }

    /** Whether an object of which nothing is known stays for now; not where its labels don't make a file of it either. */
    static boolean isKept(Map<String, String> told, Instant now) {
        return read(told, "", "", 0)
                .filter(object ->
                        Duration.between(object.left(), now).compareTo(Duration.ofDays(object.keepDays())) < 0)
                .isPresent();
    }

    private static String text(String any) {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(any.getBytes(StandardCharsets.UTF_8));
    }

    /** What labels say of an object; empty where they are not such as are written here. */
    static Optional<AwayObject> read(Map<String, String> told, String store, String key, long number) {
        try {
            FilePath path = new FilePath(name(told, "path"));
            long bytes = Long.parseLong(told.get("bytes"));
            return Optional.of(new AwayObject(
                    number,
                    store,
                    key,
                    AwayObject.State.HELD,
                    0,
                    ObjectForm.valueOf(told.get("form")),
                    bytes,
                    Long.parseLong(told.get("body")),
                    HexFormat.of().parseHex(told.get("sha256")),
                    told.getOrDefault("sealing", ""),
                    name(told, "share"),
                    path,
                    new FileRow(
                            PathBytes.of(path.name()),
                            bytes,
                            0,
                            name(told, "owner"),
                            name(told, "group"),
                            Long.parseLong(told.get("modified")),
                            Long.parseLong(told.get("accessed")),
                            Long.parseLong(told.get("modified")),
                            FileKind.of(path.name())),
                    Instant.parse(told.get("left")),
                    Integer.parseInt(told.get("keep")),
                    back(told.get("back")),
                    Optional.empty()));
        } catch (IllegalArgumentException
                | NullPointerException
                | IndexOutOfBoundsException
                | DateTimeParseException others) {
            return Optional.empty();
        }
    }

    private static ComeBack back(String told) {
        String[] parts = told.split(" ");
        return new ComeBack(ComeBack.Manner.valueOf(parts[0]), Integer.parseInt(parts[1]), Integer.parseInt(parts[2]));
    }

    private static String name(Map<String, String> told, String label) {
        return new String(Base64.getUrlDecoder().decode(told.get(label)), StandardCharsets.UTF_8);
    }
}
