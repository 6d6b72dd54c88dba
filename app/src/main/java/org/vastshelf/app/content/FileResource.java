package org.vastshelf.app.content;

import java.io.InputStream;
import org.springframework.core.io.AbstractResource;
import org.vastshelf.core.content.Contents;

/** A file's bytes for a download, of which parts can be asked for. */
final class FileResource extends AbstractResource {

    private final Contents contents;
    private final FileBytes bytes;

    FileResource(Contents contents, FileBytes bytes) {
        this.contents = contents;
        this.bytes = bytes;
    }

    @Override
    public long contentLength() {
        return contents.length();
    }

    @Override
    public InputStream getInputStream() {
        return bytes.open(contents, 0, contents.length());
    }

    @Override
    public String getDescription() {
        return "contents of " + contents.length() + " bytes";
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof FileResource file && file.contents.equals(contents);
    }

    @Override
    public int hashCode() {
        return contents.hashCode();
    }
}
