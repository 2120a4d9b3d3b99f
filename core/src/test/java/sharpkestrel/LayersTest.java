package sharpkestrel;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.library.Architectures;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;

/** Data flows down the stages; the core knows no interface. */
@AnalyzeClasses(packages = "sharpkestrel", importOptions = ImportOption.DoNotIncludeTests.class)
class LayersTest {

  @ArchTest
  static final ArchRule ARROWS_POINT_ONE_WAY = Architectures.layeredArchitecture()
      .consideringOnlyDependenciesInLayers()
      .layer("base")
      .definedBy(
          "sharpkestrel.raster..",
          "sharpkestrel.expr..",
          "sharpkestrel.geo..",
          "sharpkestrel.io..",
          "sharpkestrel.step..")
      .layer("gather")
      .definedBy("sharpkestrel.gather..")
      .layer("place")
      .definedBy("sharpkestrel.place..")
      .layer("sharpen")
      .definedBy("sharpkestrel.sharpen..")
      .layer("segment")
      .definedBy("sharpkestrel.segment..")
      .layer("outline")
      .definedBy("sharpkestrel.outline..")
      .layer("objects")
      .definedBy("sharpkestrel.objects..")
      .layer("extract")
      .definedBy("sharpkestrel.extract..")
      .layer("check")
      .definedBy("sharpkestrel.check..")
      .layer("kinds")
      .definedBy("sharpkestrel.kinds..")
      .layer("deliver")
      .definedBy("sharpkestrel.deliver..")
      .layer("flow")
      .definedBy("sharpkestrel.flow..")
      .whereLayer("flow")
      .mayNotBeAccessedByAnyLayer()
      .whereLayer("deliver")
      .mayOnlyBeAccessedByLayers("flow")
      .whereLayer("kinds")
      .mayOnlyBeAccessedByLayers("deliver", "flow")
      .whereLayer("check")
      .mayOnlyBeAccessedByLayers("kinds", "deliver", "flow")
      .whereLayer("extract")
      .mayOnlyBeAccessedByLayers("check", "kinds", "deliver", "flow")
      .whereLayer("objects")
      .mayOnlyBeAccessedByLayers("extract", "check", "kinds", "deliver", "flow")
      .whereLayer("outline")
      .mayOnlyBeAccessedByLayers("objects", "extract", "check", "kinds", "deliver", "flow")
      .whereLayer("sharpen")
      .mayOnlyBeAccessedByLayers(
          "segment", "outline", "objects", "extract", "check", "kinds", "deliver", "flow")
      .whereLayer("place")
      .mayOnlyBeAccessedByLayers(
          "sharpen", "segment", "outline", "objects", "extract", "check", "kinds", "deliver",
          "flow")
      .whereLayer("segment")
      .mayOnlyBeAccessedByLayers(
          "outline", "objects", "extract", "check", "kinds", "deliver", "flow");

  @ArchTest
  static final ArchRule NO_CIRCLES = SlicesRuleDefinition.slices()
      .matching("sharpkestrel.(**)")
      .namingSlices("$1")
      .should()
      .beFreeOfCycles();

  @ArchTest
  static final ArchRule RASTERS_KNOW_NOTHING_ABOVE_THEM = noClasses()
      .that()
      .resideInAPackage("sharpkestrel.raster..")
      .should()
      .dependOnClassesThat()
      .resideInAnyPackage(
          "sharpkestrel.geo..", "sharpkestrel.io..", "sharpkestrel.expr..", "sharpkestrel.step..");

  @ArchTest
  static final ArchRule NO_INTERFACE_IN_THE_CORE =
      noClasses().should().dependOnClassesThat().resideInAnyPackage("javafx..", "javax.swing..");
}
