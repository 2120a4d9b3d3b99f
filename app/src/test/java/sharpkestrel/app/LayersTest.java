package sharpkestrel.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;

/** The packages of the window: no circles, tools do not know each other, what is not seen knows nothing of what is. */
@AnalyzeClasses(packages = "sharpkestrel.app", importOptions = ImportOption.DoNotIncludeTests.class)
class LayersTest {

  private static final String APP = "sharpkestrel.app.";

  @ArchTest
  static final ArchRule NO_CIRCLES = SlicesRuleDefinition.slices()
      .matching("sharpkestrel.app.(**)")
      .namingSlices("$1")
      .should()
      .beFreeOfCycles();

  @ArchTest
  static final ArchRule TOOLS_DO_NOT_KNOW_EACH_OTHER = SlicesRuleDefinition.slices()
      .matching("sharpkestrel.app.tools.(*)..")
      .should()
      .notDependOnEachOther();

  @ArchTest
  static final ArchRule ONLY_THE_BENCH_NAMES_TOOLS = noClasses()
      .that()
      .resideOutsideOfPackages(
          APP + "tools..", APP + "bench..", APP + "step..", APP + "objects..", "sharpkestrel.app")
      .should()
      .dependOnClassesThat()
      .resideInAPackage(APP + "tools.*..");

  @ArchTest
  static final ArchRule THE_MODEL_KNOWS_NO_NODES_OR_TIMERS = noClasses()
      .that()
      .resideInAnyPackage(APP + "model..", APP + "work..", APP + "project..")
      .should()
      .dependOnClassesThat()
      .resideInAnyPackage("javafx.scene..", "javafx.animation..", "javafx.stage..");

  @ArchTest
  static final ArchRule LANES_KNOW_NOTHING_OF_WHAT_THEY_CARRY = noClasses()
      .that()
      .resideInAPackage(APP + "work..")
      .should()
      .dependOnClassesThat()
      .resideInAnyPackage(
          APP + "model..", APP + "project..", APP + "viewer..", APP + "tools..", APP + "shell..");

  @ArchTest
  static final ArchRule THE_PICTURE_KNOWS_NO_TOOL = noClasses()
      .that()
      .resideInAPackage(APP + "viewer..")
      .should()
      .dependOnClassesThat()
      .resideInAnyPackage(
          APP + "tools..",
          APP + "bench..",
          APP + "step..",
          APP + "objects..",
          APP + "shell..",
          APP + "look..");
}
