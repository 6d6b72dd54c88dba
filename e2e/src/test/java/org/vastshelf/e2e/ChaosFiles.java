package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.Supplier;

/** Suki's files on a share of an application that is killed, with what each of them may hold. */
final class ChaosFiles {

    private static final int LONGEST_REST_MILLIS = 2_500;

    private final String share;
    private final int most;
    private final Random random;
    private final Supplier<String> text;
    /** What each file may hold: one thing, or two where nobody knows whether the last save was in time. */
    private final Map<String, Set<String>> files = new ConcurrentHashMap<>();

    ChaosFiles(String share, int most, Random random, Supplier<String> text) {
        this.share = share;
        this.most = most;
        this.random = random;
        this.text = text;
    }

    interface Request {
        Object send() throws IOException, InterruptedException;
    }

    /** Tells nothing of what was under way when the application was killed. */
    static Void tried(CrashRig rig, Request request) throws Exception {
        try {
            request.send();
        } catch (IOException killed) {
            assertThat(rig.isKilled()).isTrue();
        }
        return null;
    }

    String any() {
        return name(random.nextInt(most));
    }

    private static String name(int i) {
        return "/file-" + i + ".txt";
    }

    String contents(String name) {
        return "/api/v1/desk/contents?person=suki&share=" + share + "&path=" + name;
    }

    /** Those that are new, and some others. */
    void saveSome(CrashRig rig) throws IOException, InterruptedException {
        for (int i = 0; i < most; i++) {
            if (random.nextInt(3) == 0 || !files.containsKey(name(i))) {
                save(rig, name(i), text.get());
            }
        }
    }

    /** A save that is sent later, among others. */
    Request save(CrashRig rig, String name) {
        String saved = text.get();
        return () -> save(rig, name, saved);
    }

    private Object save(CrashRig rig, String name, String saved) throws IOException, InterruptedException {
        Set<String> may = files.computeIfAbsent(name, none -> ConcurrentHashMap.newKeySet());
        may.add(saved);
        var answer = rig.send("PUT", contents(name), saved);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        // Two saves of one file at once: whichever came last.
        return answer;
    }

    /** Sends all at once, each after a while, and kills the application among them. */
    void killAmong(CrashRig rig, List<Request> requests) throws Exception {
        List<Callable<Void>> works = new ArrayList<>();
        for (Request request : requests) {
            int rest = random.nextInt(1_500);
            works.add(() -> {
                Thread.sleep(rest);
                return tried(rig, request);
            });
        }
        int rest = random.nextInt(LONGEST_REST_MILLIS);
        works.add(() -> {
            Thread.sleep(rest);
            rig.kill();
            return null;
        });
        try (var threads = Executors.newFixedThreadPool(5)) {
            for (Future<Void> work : threads.invokeAll(works)) {
                work.get();
            }
        }
    }

    /** Each holds what somebody saved there, whole. */
    void areWhole(CrashRig rig) throws IOException, InterruptedException {
        for (Map.Entry<String, Set<String>> file : files.entrySet()) {
            String held = rig.get(contents(file.getKey()));
            assertThat(file.getValue().contains(held))
                    .as(file.getKey() + " holds " + held.length() + " characters that nobody saved")
                    .isTrue();
            file.getValue().clear();
            file.getValue().add(held);
        }
        assertThat(rig.post("/api/v1/kept-bytes/looks", "")).contains("\"mended\":0", "\"missing\":0");
    }
}
