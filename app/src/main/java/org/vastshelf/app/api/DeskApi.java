package org.vastshelf.app.api;

import java.util.Arrays;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.desk.DeskClients;
import org.vastshelf.app.desk.DeskService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.ClientSpace;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.Verdict;
import org.vastshelf.core.unit.Bytes;

/** File operations through the gate. */
@RestController
class DeskApi {

    private final DeskService desk;
    private final EstateStore estates;

    DeskApi(DeskService desk, EstateStore estates) {
        this.desk = desk;
        this.estates = estates;
    }

    record Request(
            @Nullable String person,
            @Nullable String share,
            @Nullable String operation,
            @Nullable String path,
            @Nullable Long bytes) {}

    record Answer(boolean allowed, String reason, Verdict verdict, ClientSpace clientSpace, long auditLine) {}

    @PostMapping("/api/v1/desk/operations")
    Answer operate(@AuthenticationPrincipal Someone me, @RequestBody Request request) {
        String person = required("person", request.person);
        if (!me.actsAs(person)) {
            throw new AccessDeniedException("only administrators and operators act as somebody else");
        }
        long bytes = request.bytes == null ? 0 : request.bytes;
        if (bytes < 0) {
            throw new IllegalArgumentException("bytes is " + bytes + ", must be at least 0");
        }
        String shareName = required("share", request.share);
        Share share = Optional.ofNullable(estates.load().shares().get(shareName))
                .orElseThrow(() -> new IllegalArgumentException("There is no share '" + shareName + "'"));
        DeskService.Result result = desk.perform(new FileOperation(
                kind(required("operation", request.operation)),
                person,
                shareName,
                new FilePath(required("path", request.path)),
                Bytes.of(bytes),
                DeskClients.of(share, person)));
        return new Answer(
                result.verdict().allowed(),
                result.verdict().reason(),
                result.verdict(),
                result.space(),
                result.auditLine());
    }

    private static Kind kind(String text) {
        return Arrays.stream(Kind.values())
                .filter(k -> k.name().equals(text))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(
                        "operation is '" + text + "', must be one of " + Arrays.toString(Kind.values())));
    }

    private static String required(String name, @Nullable String value) {
        if (value == null || value.isBlank()) {
            throw new IllegalArgumentException(name + " is missing");
        }
        return value;
    }
}
