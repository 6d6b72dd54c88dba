package org.vastshelf.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;

@AnalyzeClasses(packages = "org.vastshelf.app", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule SQL_IS_IN_STORES_ONLY = noClasses()
            .that()
            .haveNameNotMatching(".*(Store|JooqWiring)(\\$.*)?")
            .and()
            .resideOutsideOfPackages("org.vastshelf.app.store.generated..", "org.vastshelf.app.store.migration..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.jooq..", "org.vastshelf.app.store.generated..")
            .orShould()
            .dependOnClassesThat()
            .belongToAnyOf(Statement.class, PreparedStatement.class, ResultSet.class);

    @ArchTest
    static final ArchRule PACKAGES_FORM_NO_CIRCLES =
            slices().matching("org.vastshelf.app.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule THE_PAGE_KIT_KNOWS_NO_FEATURE = classes()
            .that()
            .resideInAPackage("org.vastshelf.app.kit..")
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage(
                    "org.vastshelf.app.kit..",
                    "org.vastshelf.core..",
                    "java..",
                    "jakarta.servlet..",
                    "org.springframework..",
                    "org.jspecify..",
                    "org.apache.commons..");

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
