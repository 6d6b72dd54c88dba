package org.vastshelf.app.build;

import java.io.IOException;
import java.util.List;
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
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
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
        return show(model);
    }

    /** Templates, and what can be made into one or of one. */
    record View(List<Row> templates, Form save, Form bringIn) {}

    /** A template, and the fields of the volume that is made of it. */
    record Row(String name, String size, String kind, int shares, int limits, Field volume, Field pool) {}

    private String show(Model model) {
        Estate estate = estates.load();
        Figures fmt = Figures.of(model);
        Typed typed = Typed.of(model);
        Typed.Fields saving = typed.at("/build/definitions/templates");
        Typed.Fields bringing = typed.at("/build/definitions/import");
        Form bringIn = Form.of(
                        bringing.action(),
                        "Bring in a template or an estate",
                        bringing.file("file", "File")
                                .with("required", "required")
                                .width("w-72"))
                .button("Bring it in");
        model.addAttribute(
                "page",
                new View(
                        templates.all().stream()
                                .map(t -> row(fmt, typed, estate, t))
                                .toList(),
                        Form.of(
                                saving.action(),
                                "Save a volume as a template",
                                saving.select(
                                                "volume",
                                                "Volume",
                                                estate.volumes().keySet(),
                                                "")
                                        .width("w-48"),
                                saving.text("name", "Name of the template", "").width("w-48")),
                        estate.servers().isEmpty()
                                ? bringIn
                                : bringIn.note("An estate is only taken where nothing is yet.")));
        return "definitions";
    }

    private static Row row(Figures fmt, Typed typed, Estate estate, VolumeTemplate template) {
        Typed.Fields using = typed.at("/build/definitions/templates/" + template.name() + "/use");
        return new Row(
                template.name(),
                fmt.size(template.volume().size()),
                VolumeRow.kind(template.volume()),
                template.shares().size(),
                template.limits().size(),
                using.text("volume", "Name", ""),
                using.select("pool", "Pool", estate.pools().keySet(), ""));
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
            Typed.refuse(model, refused);
            return show(model);
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
            Typed.refuse(model, refused);
            return show(model);
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
            Typed.refuse(model, new AtField("file", "The file can't be read: " + cause(refused)));
            return show(model);
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
