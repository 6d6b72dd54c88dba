package org.vastshelf.app.build;

import java.io.IOException;
import java.util.Optional;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.vastshelf.app.config.Whole;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.TemplateStore;
import org.vastshelf.core.change.EstateChange;
import org.vastshelf.core.definition.VolumeTemplate;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.Volume;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** What can be made again: volume templates, and the whole estate as a file. */
@Page
class DefinitionsController {

    private final EstateStore estates;
    private final TemplateStore templates;
    private final OrderService orders;
    private final JsonMapper json;

    DefinitionsController(EstateStore estates, TemplateStore templates, OrderService orders, JsonMapper json) {
        this.estates = estates;
        this.templates = templates;
        this.orders = orders;
        this.json = json;
    }

    @GetMapping("/build/definitions")
    String definitions(Model model) {
        return show("", model);
    }

    private String show(String problem, Model model) {
        Estate estate = estates.load();
        model.addAttribute("problem", problem);
        model.addAttribute("templates", templates.all());
        model.addAttribute("volumes", estate.volumes().keySet());
        model.addAttribute("pools", estate.pools().keySet());
        model.addAttribute("empty", estate.servers().isEmpty());
        return "definitions";
    }

    @PostMapping("/build/definitions/templates")
    String save(@RequestParam String name, @RequestParam String volume, Model model) {
        Estate estate = estates.load();
        Volume found =
                Optional.ofNullable(estate.volumes().get(volume)).orElseThrow(() -> new NotFound("volume", volume));
        try {
            templates.keep(VolumeTemplate.of(name.strip(), estate, found));
            return "redirect:/build/definitions";
        } catch (IllegalArgumentException refused) {
            return show(String.valueOf(refused.getMessage()), model);
        }
    }

    @PostMapping("/build/definitions/templates/{name}/use")
    String use(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam String volume,
            @RequestParam String pool,
            Model model) {
        VolumeTemplate template = templates.find(name).orElseThrow(() -> new NotFound("template", name));
        try {
            template.applied(volume.strip(), pool).forEach(change -> orders.add(me.getName(), change));
            return "redirect:/build/definitions";
        } catch (IllegalArgumentException refused) {
            return show(String.valueOf(refused.getMessage()), model);
        }
    }

    @PostMapping("/build/definitions/templates/{name}/remove")
    String remove(@PathVariable String name) {
        templates.remove(name);
        return "redirect:/build/definitions";
    }

    @GetMapping("/build/definitions/templates/{name}.json")
    ResponseEntity<String> template(@PathVariable String name) {
        return download(name, templates.find(name).orElseThrow(() -> new NotFound("template", name)));
    }

    @GetMapping("/build/definitions/estate.json")
    ResponseEntity<String> estate() {
        return download("estate", EstateDefinition.of(estates.load()));
    }

    private ResponseEntity<String> download(String name, Object body) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(name + ".json")
                                .build()
                                .toString())
                .body(json.writerWithDefaultPrettyPrinter().writeValueAsString(body));
    }

    @PostMapping("/build/definitions/import")
    String bringIn(@AuthenticationPrincipal Someone me, @RequestParam MultipartFile file, Model model)
            throws IOException {
        try {
            String text = new String(file.getBytes(), java.nio.charset.StandardCharsets.UTF_8);
            if (text.contains("\"" + EstateDefinition.FORMAT + "\"")) {
                orders.add(
                        me.getName(),
                        new EstateChange.ApplyEstate(Whole.require(json.readValue(text, EstateDefinition.class))));
            } else {
                templates.keep(json.readValue(text, VolumeTemplate.class));
            }
            return "redirect:/build/definitions";
        } catch (JacksonException | IllegalArgumentException refused) {
            return show("The file can't be read: " + cause(refused), model);
        }
    }

    private static String cause(RuntimeException refused) {
        Throwable at = refused;
        while (at.getCause() != null) {
            at = at.getCause();
        }
        return String.valueOf(at.getMessage()).lines().findFirst().orElse("");
    }
}
