package org.vastshelf.core.estate;

/** A box of bays, numbered from 1 on its file server. */
public record Enclosure(String server, int number, int bays, String note) {

    public String key() {
        return server + "/" + number;
    }
}
