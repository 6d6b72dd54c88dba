package org.vastshelf.app.config;

import java.nio.file.Path;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.vastshelf.core.estate.RetentionRule;

/**
 * What an installation sets.
 *
 * @param demo load the demo estate into an empty database and let its clock be moved
 * @param large load a generated estate of 960 drives and 1,000 volumes instead, to see how pages bear it
 * @param traffic let the demo's people save files as days pass
 * @param data folder for what is not in the database
 * @param retentionYears no file can be retained for longer
 * @param holdRelease who has to agree before a legal tag is taken off
 * @param key keys in Base64 with commas between them, the newest first, that seal what must not be readable in the database;
 *     empty for the one in the file {@code key} of the data folder
 * @param currency in which prices are given
 * @param rushFiles somebody who reads more files from cold stores within an hour is held back
 * @param scanRoots folders below which real trees may be brought in
 */
@ConfigurationProperties("vastshelf")
public record Settings(
        @DefaultValue("true") boolean demo,
        @DefaultValue("false") boolean large,
        @DefaultValue("true") boolean traffic,
        @DefaultValue("var/data") Path data,

        @DefaultValue({"/usr/share/doc", "/usr/lib", "/usr/share"})
        List<String> scanRoots,

        @DefaultValue("30") int retentionYears,
        @DefaultValue("BOTH_ROLES") HoldRelease holdRelease,

        @DefaultValue("") String key,
        @DefaultValue("EUR") String currency,
        @DefaultValue("500") int rushFiles,

        @DefaultValue DirectorySettings directory,
        @DefaultValue MailSettings mail) {

    public Settings {
        if (retentionYears < 1 || retentionYears > RetentionRule.MOST_YEARS) {
            throw new IllegalArgumentException(
                    "vastshelf.retention-years is " + retentionYears + ", must be 1 to " + RetentionRule.MOST_YEARS);
        }
        if (rushFiles < 1) {
            throw new IllegalArgumentException("vastshelf.rush-files is " + rushFiles + ", must be at least 1");
        }
    }

    /** Where the embedded object store keeps its objects. */
    public Path storeFolder() {
        return data.resolve("object-store");
    }

    /** Who has to agree before a legal tag is taken off. */
    public enum HoldRelease {
        /** An operator and an administrator. */
        BOTH_ROLES,
        /** Any two of them. */
        TWO_PEOPLE,
        /** One of them alone. */
        ONE
    }

    /**
     * Where people sign in.
     *
     * @param url LDAP URL; empty for the embedded one
     */
    public record DirectorySettings(
            @DefaultValue("") String url,
            @DefaultValue("dc=larkmoor,dc=example") String base,
            @DefaultValue("") String bindDn,
            @DefaultValue("") String bindPassword) {}

    /**
     * Where notices go.
     *
     * @param host SMTP server; empty for the embedded one
     */
    public record MailSettings(
            @DefaultValue("") String host,
            @DefaultValue("25") int port,
            @DefaultValue("vast-shelf@larkmoor.example") String from) {}
}
