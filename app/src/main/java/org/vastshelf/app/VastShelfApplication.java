package org.vastshelf.app;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Starts Vast Shelf. */
@SpringBootApplication
@EnableScheduling
@ConfigurationPropertiesScan
public class VastShelfApplication {

    public static void main(String[] args) {
        SpringApplication.run(VastShelfApplication.class, args);
    }
}
