package org.vastshelf.core.serve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Share;

class MountLinesTest {

    private static Share share(boolean smb, boolean nfs) {
        return new Share("film", "film", smb, nfs, true, List.of(), List.of(), java.util.Optional.empty());
    }

    @Test
    void each_client_gets_the_line_of_each_protocol() {
        assertThat(MountLines.of(share(true, true), Samples.SERVER, "suki").stream()
                        .map(MountLines.MountLine::command))
                .containsExactly(
                        "sudo mount -t cifs //hill.larkmoor.example/film /mnt/film -o username=suki,vers=3.1.1,seal",
                        "mkdir -p ~/film && mount_smbfs //suki@hill.larkmoor.example/film ~/film",
                        "net use * \\\\hill.larkmoor.example\\film /user:suki /persistent:yes",
                        "sudo mount -t nfs -o vers=4.2 hill.larkmoor.example:/film /mnt/film",
                        "sudo mkdir -p /private/film && sudo mount -t nfs -o vers=4.0,resvport"
                                + " hill.larkmoor.example:/film /private/film",
                        "mount -o anon,mtype=hard \\\\hill.larkmoor.example\\film *");
    }

    @Test
    void only_protocols_that_are_served_and_nothing_without_an_address() {
        assertThat(MountLines.of(share(false, true), Samples.SERVER, "suki"))
                .extracting(MountLines.MountLine::protocol)
                .containsOnly("NFS");
        FileServer hidden = FileServer.of("hill", "site", "", "", 1, false);
        assertThat(MountLines.of(share(true, true), hidden, "suki")).isEmpty();
    }
}
