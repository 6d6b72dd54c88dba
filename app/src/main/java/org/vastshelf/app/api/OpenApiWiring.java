package org.vastshelf.app.api;

import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.info.License;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The head of the OpenAPI document. */
@Configuration
class OpenApiWiring {

    @Bean
    OpenAPI description() {
        return new OpenAPI()
                .info(new Info()
                        .title("Vast Shelf")
                        .version("1")
                        .description(
                                "Everything that the pages do. Sizes are exact bytes. What was refused comes back as"
                                        + " problem details (RFC 9457).")
                        .license(new License().name("Apache-2.0")))
                .addSecurityItem(new SecurityRequirement().addList("basic"))
                .components(new Components()
                        .addSecuritySchemes(
                                "basic",
                                new SecurityScheme()
                                        .type(SecurityScheme.Type.HTTP)
                                        .scheme("basic")));
    }
}
