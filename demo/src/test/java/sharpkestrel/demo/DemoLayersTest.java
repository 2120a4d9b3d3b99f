package sharpkestrel.demo;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.library.Architectures;

/** The world is built from the ground up: chance, light and land, things, regions, sensors, scenes, truth, files. */
@AnalyzeClasses(
    packages = "sharpkestrel.demo",
    importOptions = ImportOption.DoNotIncludeTests.class)
class DemoLayersTest {

  @ArchTest
  static final ArchRule WHAT_IS_BELOW_KNOWS_NOTHING_OF_WHAT_IS_ABOVE =
      Architectures.layeredArchitecture()
          .consideringOnlyDependenciesInLayers()
          .layer("noise")
          .definedBy("sharpkestrel.demo.noise..")
          .layer("ground")
          .definedBy("sharpkestrel.demo.ground..")
          .layer("light")
          .definedBy("sharpkestrel.demo.light..")
          .layer("things")
          .definedBy("sharpkestrel.demo.things..")
          .layer("sensor")
          .definedBy("sharpkestrel.demo.sensor..")
          .layer("scene")
          .definedBy("sharpkestrel.demo.scene..")
          .layer("truth")
          .definedBy("sharpkestrel.demo.truth..")
          .layer("survey")
          .definedBy("sharpkestrel.demo.survey..")
          .layer("region")
          .definedBy("sharpkestrel.demo.region..")
          .layer("order")
          .definedBy("sharpkestrel.demo")
          .whereLayer("order")
          .mayNotBeAccessedByAnyLayer()
          .whereLayer("survey")
          .mayOnlyBeAccessedByLayers("order")
          .whereLayer("truth")
          .mayOnlyBeAccessedByLayers("survey", "order")
          .whereLayer("scene")
          .mayOnlyBeAccessedByLayers("truth", "survey", "order")
          .whereLayer("region")
          .mayOnlyBeAccessedByLayers("order")
          .whereLayer("sensor")
          .mayOnlyBeAccessedByLayers("scene", "truth", "survey", "order")
          .whereLayer("things")
          .mayOnlyBeAccessedByLayers("scene", "truth", "survey", "region", "order")
          .whereLayer("light")
          .mayOnlyBeAccessedByLayers(
              "ground", "things", "scene", "truth", "survey", "region", "order")
          .whereLayer("ground")
          .mayOnlyBeAccessedByLayers("things", "scene", "truth", "survey", "region", "order");
}
