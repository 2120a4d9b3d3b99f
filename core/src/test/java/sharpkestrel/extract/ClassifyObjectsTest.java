package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.ClassifierFile;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;

/** Fields of four kinds in a chequered country, cut into cells and told by samples. */
class ClassifyObjectsTest {

  private static final ObjectSet objects = ChequeredCountry.OBJECTS;

  @TempDir
  Path folder;

  private static ObjectSet classified(OutlineSet samples, Learner method) {
    return new ClassifyObjects(
            objects, Optional.of(samples), Optional.empty(), LearnBy.of(method), 0)
        .run(Job.QUIET);
  }

  private static double right(ObjectSet told) {
    Table.Column classes = told.table().column("class");
    int right = 0;
    for (int row = 0; row < told.count(); row++) {
      right += classes.text(row).equals(ChequeredCountry.KINDS[ChequeredCountry.kind(row)]) ? 1 : 0;
    }
    return (double) right / told.count();
  }

  @ParameterizedTest
  @EnumSource(Learner.class)
  void aFifthOfTheFieldsTellsTheOthersByEveryMethod(Learner method) {
    assertThat(right(classified(ChequeredCountry.samples(5, false, "class"), method)))
        .isGreaterThan(0.9);
  }

  @Test
  void pointsServeAndProbabilitiesAddUpAndDoubtIsTheSecondOverTheFirst() {
    ObjectSet told = classified(ChequeredCountry.samples(5, true, "kind"), Learner.FOREST);

    assertThat(right(told)).isGreaterThan(0.9);
    for (int row = 0; row < told.count(); row++) {
      double sum = 0;
      double first = 0;
      double second = 0;
      for (String kind : ChequeredCountry.KINDS) {
        double p = told.table().values("p_" + kind)[row];
        sum += p;
        second = Math.max(second, Math.min(p, first));
        first = Math.max(first, p);
      }
      assertThat(sum).isCloseTo(1, within(1e-5));
      assertThat(told.table().values("probability")[row]).isCloseTo(first, within(1e-9));
      assertThat(told.table().values("doubt")[row]).isCloseTo(second / first, within(1e-6));
    }
  }

  @Test
  void aModelFromItsFileTellsTheSameAsTheSamplesAndSaysWhatItIsWorth() {
    OutlineSet samples = ChequeredCountry.samples(3, false, "class");
    Classifier learned =
        new LearnClasses(objects, samples, LearnBy.of(Learner.BOOSTING)).run(Job.QUIET);
    Path file = folder.resolve("fields.json");

    ClassifierFile.write(learned, file);
    ObjectSet told = new ClassifyObjects(
            objects,
            Optional.empty(),
            Optional.of(ClassifierFile.read(file)),
            LearnBy.of(Learner.FOREST),
            0)
        .run(Job.QUIET);

    assertThat(right(told)).isGreaterThan(0.9);
    assertThat(learned.kept().orElseThrow().accuracy()).isGreaterThan(0.8);
    assertThat(learned.toText()).contains("kept-back blocks").contains("Gradient boosting");
    assertThat(told.table().values("probability"))
        .isEqualTo(classified(samples, Learner.BOOSTING).table().values("probability"));
  }

  @Test
  void whatCannotBeToldIsSaidInWords() {
    OutlineSet none = new OutlineSet(
        objects.labels().grid().crs(),
        ChequeredCountry.samples(5, false, "class").outlines(),
        new Table(ChequeredCountry.samples(5, false, "class").count(), List.of()));
    assertThatThrownBy(() -> classified(none, Learner.FOREST)).hasMessageContaining("no class");
    List<Geometry> elsewhere = List.of(
        ChequeredCountry.SHAPES.toGeometry(new Envelope(600_000, 600_010, 6_702_000, 6_702_010)),
        ChequeredCountry.SHAPES.toGeometry(new Envelope(600_020, 600_030, 6_702_000, 6_702_010)));
    OutlineSet off = new OutlineSet(
        objects.labels().grid().crs(),
        elsewhere,
        new Table(2, List.of(Table.Column.ofTexts("class", "Class", List.of("a", "b")))));
    assertThatThrownBy(() -> classified(off, Learner.FOREST)).hasMessageContaining("elsewhere");
    Classifier learned = new LearnClasses(
            objects, ChequeredCountry.samples(5, false, "class"), LearnBy.of(Learner.NEAREST))
        .run(Job.QUIET);
    ObjectSet bare =
        objects.withTable(new Table(objects.count(), List.of(objects.table().column("area"))));
    assertThatThrownBy(() -> new ClassifyObjects(
                bare, Optional.empty(), Optional.of(learned), LearnBy.of(Learner.FOREST), 0)
            .run(Job.QUIET))
        .hasMessageContaining("do not have");
    assertThatThrownBy(() -> new ClassifyObjects(
                objects, Optional.empty(), Optional.empty(), LearnBy.of(Learner.FOREST), 0)
            .run(Job.QUIET))
        .hasMessageContaining("one of the two");
  }
}
