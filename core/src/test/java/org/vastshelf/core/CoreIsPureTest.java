package org.vastshelf.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "org.vastshelf.core", importOptions = ImportOption.DoNotIncludeTests.class)
class CoreIsPureTest {

    @ArchTest
    static final ArchRule KNOWS_ONLY_THE_JDK_AND_STATISTICS = classes()
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage(
                    "org.vastshelf.core..",
                    "java.lang..",
                    "java.math..",
                    "java.net",
                    "java.nio.charset",
                    "java.security",
                    "java.time..",
                    "java.util..",
                    "org.dmfs.rfc5545..",
                    "org.hipparchus..",
                    "com.dynatrace.hash4j..",
                    "org.jspecify..");

    @ArchTest
    static final ArchRule ITS_PACKAGES_FORM_NO_CIRCLES =
            slices().matching("org.vastshelf.core.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule HAS_NO_CLOCK_OF_ITS_OWN = noClasses()
            .should()
            .callMethod(java.time.Instant.class, "now")
            .orShould()
            .callMethod(java.time.LocalDate.class, "now")
            .orShould()
            .callMethod(System.class, "currentTimeMillis")
            .orShould()
            .callMethod(System.class, "nanoTime");
}
