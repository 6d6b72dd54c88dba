package org.vastshelf.app.agenda;

import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Consumer;

/** Several things at the same time, in threads of the system's: many short waits for the database cost those least. */
public final class Beside {

    private Beside() {}

    /** Comes back when all have ended, and throws what the first of them that failed threw. */
    public static <T> void each(List<T> some, Consumer<T> work) {
        try (ExecutorService threads = Executors.newThreadPerTaskExecutor(
                Thread.ofPlatform().name("beside-", 1).factory())) {
            List<CompletableFuture<Void>> all = some.stream()
                    .map(one -> CompletableFuture.runAsync(() -> work.accept(one), threads))
                    .toList();
            all.forEach(CompletableFuture::join);
        } catch (CompletionException failed) {
            if (failed.getCause() instanceof RuntimeException cause) {
                throw cause;
            }
            throw failed;
        }
    }
}
