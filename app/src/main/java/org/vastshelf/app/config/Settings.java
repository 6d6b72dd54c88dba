package org.vastshelf.app.config;

import java.nio.file.Path;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * What an installation sets.
 *
 * @param demo load the demo estate into an empty database and let its clock be moved
 * @param large load a generated estate of 960 drives and 1,000 volumes instead, to see how pages bear it
 * @param traffic let the demo's people save files as days pass
 * @param data folder for what is not in the database
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

        @DefaultValue DirectorySettings directory,
        @DefaultValue MailSettings mail) {

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
