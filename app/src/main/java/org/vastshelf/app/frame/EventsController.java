package org.vastshelf.app.frame;

import java.io.IOException;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Tells open pages once a second to look again at what waits. */
@RestController
class EventsController {

    private static final long LONGEST = 3_600_000;

    private final Set<SseEmitter> open = ConcurrentHashMap.newKeySet();

    @GetMapping(path = "/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events() {
        SseEmitter emitter = new SseEmitter(LONGEST);
        emitter.onCompletion(() -> open.remove(emitter));
        emitter.onTimeout(() -> open.remove(emitter));
        emitter.onError(gone -> open.remove(emitter));
        open.add(emitter);
        return emitter;
    }

    @Scheduled(fixedDelay = 1_000)
    void tick() {
        for (SseEmitter emitter : open) {
            try {
                emitter.send(SseEmitter.event().name("tick").data("."));
            } catch (IOException | IllegalStateException gone) {
                open.remove(emitter);
            }
        }
    }

    /** Pages listen for as long as they are open; a stop does not wait for them. */
    @EventListener(ContextClosedEvent.class)
    void close() {
        open.forEach(SseEmitter::complete);
    }
}
