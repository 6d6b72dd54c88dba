package org.vastshelf.app.content;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import org.springframework.core.io.InputStreamResource;
import org.springframework.core.io.Resource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Digests;
import org.vastshelf.core.content.Contents;

/** Answers that hand out files: from any place on, so that a download that was cut off goes on. */
@Component
public class Downloads {

    private final FileBytes bytes;

    Downloads(FileBytes bytes) {
        this.bytes = bytes;
    }

    /**
     * The whole file, or the part that the request asks for.
     *
     * @param onlyIf the state for which a part was asked, or empty; a file in another state is handed out whole
     */
    public ResponseEntity<Resource> of(String name, Contents contents, String onlyIf) {
        String state = "\"" + HexFormat.of().formatHex(Digests.sixteen(ContentsCode.write(contents))) + "\"";
        Resource resource = new FileResource(contents, bytes);
        boolean another = !onlyIf.isEmpty() && !onlyIf.equals(state);
        ResponseEntity.BodyBuilder answer = ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .eTag(state)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(name, StandardCharsets.UTF_8)
                                .build()
                                .toString());
        return another
                ? answer.contentLength(contents.length())
                        .body(new InputStreamResource(bytes.open(contents, 0, contents.length())))
                : answer.body(resource);
    }
}
