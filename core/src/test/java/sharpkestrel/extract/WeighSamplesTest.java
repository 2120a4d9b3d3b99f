package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.LearnersCompared;
import sharpkestrel.extract.learner.LearnersCompared.Unit;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;

/** What is said of good samples, and of some that are bad in ways that are known. */
class WeighSamplesTest {

  private static OutlineSet with(OutlineSet samples, List<Geometry> shapes, List<String> classes) {
    List<Geometry> allShapes = new ArrayList<>(samples.outlines());
    List<String> allClasses = new ArrayList<>();
    for (int i = 0; i < samples.count(); i++) {
      allClasses.add(samples.table().column("class").text(i));
    }
    allShapes.addAll(shapes);
    allClasses.addAll(classes);
    return new OutlineSet(
        samples.crs(),
        allShapes,
        new Table(allShapes.size(), List.of(Table.Column.ofTexts("class", "Class", allClasses))));
  }

  private static OutlineSet weighed(OutlineSet samples) {
    return new WeighSamples(ChequeredCountry.OBJECTS, samples, LearnBy.of(Learner.EXTREME_TREES))
        .run(Job.QUIET);
  }

  private static Geometry square(int field, double shift) {
    int across = ChequeredCountry.SIDE / ChequeredCountry.FIELD;
    double x = 512_000 + ChequeredCountry.FIELD * (field % across + 0.5) + shift;
    double y = 6_702_000 - ChequeredCountry.FIELD * (Math.floorDiv(field, across) + 0.5);
    return ChequeredCountry.SHAPES.toGeometry(new Envelope(x - 3, x + 3, y - 3, y + 3));
  }

  @Test
  void badSamplesAreNamed() {
    OutlineSet good = ChequeredCountry.samples(2, false, "class");
    int last = good.count();
    // a field of water that is called bare, one at the place of another, one beside the scene
    int water = 1;
    while (ChequeredCountry.kind(water) != 3) {
      water += 2;
    }
    String other = ChequeredCountry.kind(0) == 0 ? "water" : "bare";
    OutlineSet all = with(
        good,
        List.of(
            square(water, 0),
            square(0, 1),
            ChequeredCountry.SHAPES.toGeometry(
                new Envelope(600_000, 600_010, 6_702_000, 6_702_010))),
        List.of("bare", other, "grass"));

    OutlineSet weighed = weighed(all);

    Table.Column remark = weighed.table().column("remark");
    assertThat(remark.text(last)).contains("looks like 'water'");
    assertThat(weighed.table().values("own")[last]).isLessThan(0.3);
    assertThat(remark.text(last + 1)).contains("at the same place as a sample of");
    assertThat(remark.text(0)).contains("at the same place as a sample of '" + other + "'");
    assertThat(remark.text(last + 2)).contains("no object");
    assertThat(weighed.table().values("objects")[last + 2]).isZero();
    long fine = 0;
    for (int i = 1; i < last; i++) {
      fine += remark.text(i).isEmpty() ? 1 : 0;
    }
    assertThat(fine).isGreaterThan((long) (0.85 * last));
  }

  @Test
  void howFarClassesAreApartAndSpreadIsTold() {
    OutlineSet weighed = weighed(ChequeredCountry.samples(1, false, "class"));

    for (int i = 0; i < weighed.count(); i++) {
      String ofClass = weighed.table().column("class").text(i);
      double apart = weighed.table().values("apart")[i];
      assertThat(apart).isBetween(1.5, 2.0);
      assertThat(weighed.table().column("nearest").text(i))
          .isNotEqualTo(ofClass)
          .isNotEmpty();
      // each block of ground has fields of each kind but for a few
      assertThat(weighed.table().values("spread")[i]).isBetween(0.5, 1.0);
    }
  }

  @Test
  void oneClassCanBeLookedAtThoughNothingIsLearned() {
    OutlineSet one = new OutlineSet(
        ChequeredCountry.OBJECTS.labels().grid().crs(),
        List.of(square(0, 0), square(5, 0)),
        new Table(2, List.of(Table.Column.ofTexts("class", "Class", List.of("roof", "roof")))));

    OutlineSet weighed = weighed(one);

    assertThat(weighed.table().values("own")).containsOnly(Double.NaN);
    assertThat(weighed.table().column("remark").text(0)).isEmpty();
  }

  @Test
  void outlinesThatCrossThemselvesAreHeldAgainstOthers() {
    OutlineSet good = ChequeredCountry.samples(2, false, "class");
    Geometry here = good.outlines().getFirst();
    Envelope box = here.getEnvelopeInternal();
    // a bow tie about the first sample's middle
    Geometry crossed = ChequeredCountry.SHAPES.createPolygon(new Coordinate[] {
      new Coordinate(box.getMinX(), box.getMinY()),
      new Coordinate(box.getMaxX(), box.getMaxY()),
      new Coordinate(box.getMaxX(), box.getMinY()),
      new Coordinate(box.getMinX(), box.getMaxY()),
      new Coordinate(box.getMinX(), box.getMinY())
    });
    assertThat(crossed.isValid()).isFalse();
    String other = ChequeredCountry.kind(0) == 0 ? "water" : "bare";

    OutlineSet weighed = weighed(with(good, List.of(crossed), List.of(other)));

    assertThat(weighed.table().column("remark").text(good.count()))
        .contains("at the same place as a sample of");
  }

  @Test
  void learnersAreComparedByObjectAndByPixel() {
    LearnersCompared compared = new CompareLearners(
            ChequeredCountry.OBJECTS,
            ChequeredCountry.samples(1, false, "class"),
            Optional.of(ChequeredCountry.SCENE),
            LearnBy.of(Learner.FOREST),
            List.of("forest", "likelihood"))
        .run(Job.QUIET);

    assertThat(compared.entries())
        .extracting(LearnersCompared.Entry::unit, LearnersCompared.Entry::method)
        .containsExactly(
            tuple(Unit.OBJECTS, Learner.FOREST),
            tuple(Unit.OBJECTS, Learner.LIKELIHOOD),
            tuple(Unit.PIXELS, Learner.FOREST),
            tuple(Unit.PIXELS, Learner.LIKELIHOOD));
    // pixels of one piece of ground are right or wrong together: many of them are no surer
    LearnersCompared.Entry pixels = compared.entries().get(2);
    assertThat(pixels.kept().count()).isGreaterThan(2000);
    assertThat(pixels.places()).isBetween(10, 144);
    assertThat(pixels.interval()[1] - pixels.interval()[0]).isGreaterThan(0.02);
    for (LearnersCompared.Entry entry : compared.entries()) {
      assertThat(entry.kept().accuracy()).as(entry.method().title()).isGreaterThan(0.85);
    }
    assertThat(compared.entries().get(0).outOfBag()).isGreaterThan(0.85);
    assertThat(compared.entries().get(1).outOfBag()).isNaN();
    // pixels of a field share its tone: more of them, told from elsewhere, no better
    assertThat(compared.entries().get(2).kept().accuracy())
        .isCloseTo(compared.entries().get(0).kept().accuracy(), within(0.15));

    assertThat(compared.curve()).hasSize(5);
    assertThat(compared.curve().getFirst().samples())
        .isLessThan(compared.curve().getLast().samples() / 3);
    assertThat(compared.curve().getLast().right())
        .isEqualTo(compared.entries().get(0).kept().accuracy(), within(1e-12));
    // the kinds differ in two bands only: area, the same for all, is not needed
    assertThat(compared.features().getFirst().loss()).isGreaterThan(0.01);
    assertThat(compared.features())
        .filteredOn(each -> each.feature().equals("area"))
        .allSatisfy(each -> assertThat(each.loss()).isEqualTo(0, within(1e-9)));
    assertThat(compared.toText()).contains("out of bag", "by samples learned from", "shuffled");
    assertThat(compared.toJson().path("learners")).hasSize(4);
  }

  @Test
  void aWayToLearnThatThereIsNotIsNamed() {
    assertThatThrownBy(() -> new CompareLearners(
            ChequeredCountry.OBJECTS,
            ChequeredCountry.samples(1, false, "class"),
            Optional.empty(),
            LearnBy.of(Learner.FOREST),
            List.of("oracle")))
        .hasMessageContaining("'oracle'")
        .hasMessageContaining("extreme_trees");
  }
}
