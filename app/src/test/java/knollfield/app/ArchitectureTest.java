package knollfield.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import knollfield.core.explain.Statement;
import org.junit.jupiter.api.Test;

@AnalyzeClasses(packages = "knollfield", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule CORE_KNOWS_THE_JDK_ONLY = classes()
            .that()
            .resideInAPackage("knollfield.core..")
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage("knollfield.core..", "java..", "org.jspecify..");

    /** What lays a card and what proves it share the book and the words of the work, and nothing else. */
    @ArchTest
    static final ArchRule ROUTE_KNOWS_THE_BOOK_ONLY = classes()
            .that()
            .resideInAPackage("knollfield.core.route..")
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage("knollfield.core.route..", "knollfield.core.engine..", "java..", "org.jspecify..");

    @ArchTest
    static final ArchRule DRY_RUN_KNOWS_THE_BOOK_ONLY = classes()
            .that()
            .resideInAPackage("knollfield.core.dryrun")
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage("knollfield.core.dryrun", "knollfield.core.engine..", "java..", "org.jspecify..");

    @ArchTest
    static final ArchRule CORE_READS_NO_CLOCK = noClasses()
            .that()
            .resideInAPackage("knollfield.core..")
            .should()
            .callMethod(java.time.LocalDate.class, "now")
            .orShould()
            .callMethod(java.time.Instant.class, "now")
            .orShould()
            .callMethod(java.time.LocalDateTime.class, "now")
            .orShould()
            .callMethod(System.class, "currentTimeMillis");

    /** A template is no sentence: whoever prints one writes it with its figures. */
    @ArchTest
    static final ArchRule NOBODY_PRINTS_A_TEMPLATE = noClasses()
            .that()
            .doNotHaveFullyQualifiedName(Statement.class.getName())
            .should()
            .callMethod(Statement.class, "template");

    @ArchTest
    static final ArchRule SQL_LIVES_IN_REPOSITORIES = noClasses()
            .that()
            .haveSimpleNameNotEndingWith("Repository")
            .and()
            // opens the file, and copies it whole
            .resideOutsideOfPackage("knollfield.app.data")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.springframework.jdbc..", "java.sql..", "javax.sql..");

    @ArchTest
    static final ArchRule CONTROLLERS_ASK_SERVICES = noClasses()
            .that()
            .haveSimpleNameEndingWith("Controller")
            .and()
            // signing in and listing people read accounts directly; they decide nothing about the job
            .resideOutsideOfPackages("knollfield.app.security", "knollfield.app.setup")
            .should()
            .dependOnClassesThat()
            .haveSimpleNameEndingWith("Repository");

    @ArchTest
    static final ArchRule FEATURES_FORM_NO_CIRCLE =
            slices().matching("knollfield.app.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule CORE_PACKAGES_FORM_NO_CIRCLE =
            slices().matching("knollfield.core.(*)..").should().beFreeOfCycles();

    /** What is longer puts views together or decides something, and has a file of its own for that. */
    @Test
    void controllersAreShorterThan150Lines() throws IOException {
        try (Stream<Path> files = Files.walk(Path.of("src/main/java"))) {
            List<Path> controllers = files.filter(
                            f -> f.getFileName().toString().endsWith("Controller.java"))
                    .toList();
            assertThat(controllers).hasSizeGreaterThan(30);
            for (Path controller : controllers) {
                assertThat(Files.readAllLines(controller)).as("%s", controller).hasSizeLessThan(150);
            }
        }
    }
}
