package org.vastshelf.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "org.vastshelf.app", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule CONTROLLERS_KNOW_NO_SQL = noClasses()
            .that()
            .haveSimpleNameEndingWith("Controller")
            .or()
            .haveSimpleNameEndingWith("Api")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.jooq..", "org.vastshelf.app.store.generated..");

    @ArchTest
    static final ArchRule STANDINS_ARE_WIRED_IN_THREE_PLACES_ONLY = noClasses()
            .that()
            .resideOutsideOfPackages(
                    "org.vastshelf.app.config..", "org.vastshelf.app.directory..", "org.vastshelf.app.demo..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("org.vastshelf.standins..");

    @ArchTest
    static final ArchRule PAGES_AND_API_DO_NOT_LEAN_ON_EACH_OTHER = noClasses()
            .that()
            .resideOutsideOfPackage("org.vastshelf.app.api..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("org.vastshelf.app.api..");

    @ArchTest
    static final ArchRule THE_CLOCK_IS_READ_AT_THE_EDGE_ONLY = noClasses()
            .that()
            .resideOutsideOfPackages("org.vastshelf.app.clock..", "org.vastshelf.app.demo..")
            .should()
            .callMethod(java.time.Instant.class, "now")
            .orShould()
            .callMethod(java.time.LocalDate.class, "now");

    @ArchTest
    static final ArchRule TRANSACTIONS_BEGIN_IN_ONE_PLACE = noClasses()
            .that()
            .doNotHaveFullyQualifiedName("org.vastshelf.app.store.Transactions")
            .should()
            .dependOnClassesThat()
            .haveFullyQualifiedName("org.springframework.transaction.annotation.Transactional")
            .orShould()
            .dependOnClassesThat()
            .haveFullyQualifiedName("org.springframework.transaction.support.TransactionTemplate");
}
