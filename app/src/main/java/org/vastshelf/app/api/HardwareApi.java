package org.vastshelf.app.api;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.hardware.DamagedFiles;
import org.vastshelf.app.hardware.HardwareEventStore;
import org.vastshelf.app.hardware.HardwareService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.failure.Mishap;

/** Rescans, locate lights, rebuilds and the stand-in bench. */
@RestController
class HardwareApi {

    private static final int EVENTS = 200;

    private final EstateStore estates;
    private final HardwareService hardware;
    private final HardwareEventStore events;
    private final DamagedFiles damaged;

    HardwareApi(EstateStore estates, HardwareService hardware, HardwareEventStore events, DamagedFiles damaged) {
        this.estates = estates;
        this.hardware = hardware;
        this.events = events;
        this.damaged = damaged;
    }

    record Light(boolean on) {}

    record Told(List<String> told) {}

    @GetMapping("/api/v1/arrivals")
    List<Arrival> arrivals() {
        return List.copyOf(estates.load().arrivals().values());
    }

    @GetMapping("/api/v1/rebuilds")
    List<Rebuild> rebuilds() {
        return List.copyOf(hardware.seenNow().rebuilds().values());
    }

    @GetMapping("/api/v1/hardware-events")
    List<HardwareEventStore.Event> events() {
        return events.newest(EVENTS);
    }

    @PostMapping("/api/v1/servers/{name}/rescan")
    List<Arrival> rescan(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        hardware.rescan(name, me.getName());
        return arrivals();
    }

    @GetMapping("/api/v1/scrubs")
    List<Scrub> scrubs() {
        return List.copyOf(estates.load().scrubs().values());
    }

    /** Damaged blocks that the last scrub of a pool could not heal, and what they belong to. */
    @GetMapping("/api/v1/pools/{name}/damage")
    List<DamagedFiles.Finding> damage(@PathVariable String name) {
        return damaged.of(name);
    }

    @PostMapping("/api/v1/pools/{name}/scrub")
    void scrub(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        hardware.scrub(name, me.getName());
    }

    @PostMapping("/api/v1/drives/{server}/{enclosure}/{bay}/locate")
    void locate(
            @PathVariable String server,
            @PathVariable String enclosure,
            @PathVariable String bay,
            @RequestBody Light light) {
        hardware.locate(server + "/" + enclosure + "/" + bay, light.on);
    }

    /** Lets a mishap happen to the simulated hardware. */
    @PostMapping("/api/v1/bench")
    Told happen(@AuthenticationPrincipal Someone me, @RequestBody @Nullable Mishap mishap) {
        if (mishap == null) {
            throw new IllegalArgumentException("mishap is missing");
        }
        return new Told(hardware.happen(mishap, me.getName()));
    }
}
