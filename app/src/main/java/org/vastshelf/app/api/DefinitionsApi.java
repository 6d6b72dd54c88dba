package org.vastshelf.app.api;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.orders.Order;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.TemplateStore;
import org.vastshelf.core.change.EstateChange;
import org.vastshelf.core.definition.VolumeTemplate;
import org.vastshelf.core.estate.EstateDefinition;

/** The estate and volume templates as definitions; their form is in docs/definitions.md. */
@RestController
class DefinitionsApi {

    private final EstateStore estates;
    private final TemplateStore templates;
    private final OrderService orders;

    DefinitionsApi(EstateStore estates, TemplateStore templates, OrderService orders) {
        this.estates = estates;
        this.templates = templates;
        this.orders = orders;
    }

    record Use(@Nullable String volume, @Nullable String pool) {}

    @GetMapping("/api/v1/definitions/estate")
    EstateDefinition estate() {
        return EstateDefinition.of(estates.load());
    }

    /** Drafts an order that makes the estate; it is refused where one is already. */
    @PostMapping("/api/v1/definitions/estate")
    @ResponseStatus(HttpStatus.CREATED)
    Order make(@AuthenticationPrincipal Someone me, @RequestBody EstateDefinition definition) {
        return orders.create(me.getName(), List.of(new EstateChange.ApplyEstate(definition)));
    }

    @GetMapping("/api/v1/definitions/templates")
    List<VolumeTemplate> templates() {
        return templates.all();
    }

    @PostMapping("/api/v1/definitions/templates")
    @ResponseStatus(HttpStatus.CREATED)
    VolumeTemplate keep(@RequestBody VolumeTemplate template) {
        templates.keep(template);
        return template;
    }

    @PostMapping("/api/v1/definitions/templates/{name}/remove")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String name) {
        templates.find(name).orElseThrow(() -> new IllegalArgumentException("There is no template '" + name + "'"));
        templates.remove(name);
    }

    /** Drafts an order that makes a volume of a template. */
    @PostMapping("/api/v1/definitions/templates/{name}/use")
    @ResponseStatus(HttpStatus.CREATED)
    Order use(@AuthenticationPrincipal Someone me, @PathVariable String name, @RequestBody Use use) {
        VolumeTemplate template = templates
                .find(name)
                .orElseThrow(() -> new IllegalArgumentException("There is no template '" + name + "'"));
        return orders.create(
                me.getName(), template.applied(use.volume == null ? "" : use.volume, use.pool == null ? "" : use.pool));
    }
}
