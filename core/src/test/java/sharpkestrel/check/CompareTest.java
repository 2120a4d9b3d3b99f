package sharpkestrel.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

class CompareTest {

  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  private static Geometry box(double x, double y, double width, double height) {
    return GEOMETRY.toGeometry(new Envelope(x, x + width, y, y + height));
  }

  private static OutlineSet set(Geometry... outlines) {
    return set(List.of(outlines), new double[outlines.length]);
  }

  private static OutlineSet set(List<Geometry> outlines, double[] kind) {
    double[] area = outlines.stream().mapToDouble(Geometry::getArea).toArray();
    return new OutlineSet(
        CrsName.epsg(32630),
        outlines,
        new Table(
            area.length,
            List.of(
                new Table.Column("area", "Area", "m²", area),
                new Table.Column("kind", "Kind", "", kind))));
  }

  private static Scores compare(OutlineSet found, OutlineSet truth) {
    return new Compare(found, truth, "auto", "auto", 0.5).run(Job.QUIET);
  }

  @Test
  void scoresOfShiftedSquaresAreThoseOfTheirOverlap() {
    // Shifted by 2 of 10 m: common 80, together 120. The other pair shares nothing.
    OutlineSet found = set(box(2, 0, 10, 10), box(500, 0, 10, 10));
    OutlineSet truth = set(box(0, 0, 10, 10), box(100, 0, 10, 10));

    Scores scores = compare(found, truth);

    assertThat(scores.matched()).isEqualTo(1);
    assertThat(scores.precision()).isEqualTo(0.5);
    assertThat(scores.recall()).isEqualTo(0.5);
    assertThat(scores.f1()).isEqualTo(0.5);
    assertThat(scores.meanIou()).isCloseTo(80.0 / 120, within(1e-12));
    assertThat(scores.areaError()).isCloseTo(0, within(1e-12));
    assertThat(scores.wrong()).containsExactly(1);
    assertThat(scores.missedOutlines()).containsExactly(truth.outlines().get(1));
  }

  @Test
  void aMatchNeedsTheLeastOverlapAndTheErrorOfAreaHasItsSign() {
    OutlineSet truth = set(box(0, 0, 10, 10));
    OutlineSet half = set(box(0, 0, 10, 5));

    assertThat(compare(half, truth).matched()).isEqualTo(1);
    assertThat(compare(half, truth).areaError()).isCloseTo(-0.5, within(1e-12));
    assertThat(new Compare(half, truth, "auto", "auto", 0.51).run(Job.QUIET).matched())
        .isZero();
  }

  @Test
  void oneTrueOutlineIsMatchedOnceByTheBestAndTheOtherIsWrong() {
    OutlineSet truth = set(box(0, 0, 10, 10));
    OutlineSet found = set(box(0, 0, 10, 6), box(0, 0, 10, 9));

    Scores scores = compare(found, truth);

    assertThat(scores.matched()).isEqualTo(1);
    assertThat(scores.meanIou()).isCloseTo(0.9, within(1e-12));
    assertThat(scores.wrong()).containsExactly(0);
  }

  @Test
  void whatIsNotWantedIsNeverMissedAndWhatIsForgivenIsNeverWrong() {
    OutlineSet truth = set(
        List.of(box(0, 0, 10, 10), box(50, 0, 4, 4), box(100, 0, 10, 10)), new double[] {1, 1, 2});
    OutlineSet found = set(box(50, 0, 4, 4), box(100, 0, 10, 10), box(200, 0, 9, 9));

    Scores scores = new Compare(
            found, truth, "kind = 1 AND area >= 25", "kind = 1 AND area < 25", 0.5)
        .run(Job.QUIET);

    assertThat(scores.truth()).isEqualTo(1);
    assertThat(scores.missedOutlines()).containsExactly(truth.outlines().get(0));
    // The small one is forgiven; that on a roof of another kind and the one on nothing are wrong.
    assertThat(scores.wrong()).containsExactly(1, 2);
    assertThat(scores.found()).isEqualTo(2);
  }

  @Test
  void nothingFoundOrNothingTrueHasNoShareOfIt() {
    OutlineSet some = set(box(0, 0, 10, 10));
    OutlineSet none = set();

    assertThat(compare(none, some).precision()).isNaN();
    assertThat(compare(none, some).recall()).isZero();
    assertThat(compare(none, some).f1()).isZero();
    assertThat(compare(some, none).recall()).isNaN();
    assertThat(compare(none, none).f1()).isNaN();
    assertThat(compare(none, none).toJson().path("f1").isNull()).isTrue();
    assertThat(compare(none, some).toJson().path("recall").asDouble()).isZero();
  }

  @Test
  void outlinesOfTwoReferenceSystemsAreRefused() {
    OutlineSet here = set(box(0, 0, 10, 10));
    OutlineSet there = new OutlineSet(CrsName.epsg(3857), here.outlines(), here.table());

    assertThatThrownBy(() -> compare(here, there))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("32630")
        .hasMessageContaining("3857");
  }

  /** All pairs by overlap, the best first, each outline taken once: without index and without bookkeeping. */
  private static double[] plainly(OutlineSet found, OutlineSet truth) {
    List<double[]> pairs = new ArrayList<>();
    for (int f = 0; f < found.count(); f++) {
      for (int t = 0; t < truth.count(); t++) {
        Geometry a = found.outlines().get(f);
        Geometry b = truth.outlines().get(t);
        double iou = a.intersection(b).getArea() / a.union(b).getArea();
        if (iou >= 0.5) {
          pairs.add(new double[] {iou, f, t});
        }
      }
    }
    pairs.sort((p, q) -> Double.compare(q[0], p[0]));
    List<Double> f = new ArrayList<>();
    List<Double> t = new ArrayList<>();
    double sum = 0;
    for (double[] pair : pairs) {
      if (!f.contains(pair[1]) && !t.contains(pair[2])) {
        f.add(pair[1]);
        t.add(pair[2]);
        sum += pair[0];
      }
    }
    return new double[] {f.size(), f.isEmpty() ? Double.NaN : sum / f.size()};
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5})
  void crowdedBoxesAreMatchedAsAPlainCountMatchesThem(long seed) {
    Random random = new Random(seed);
    Geometry[] truth = new Geometry[60];
    Geometry[] found = new Geometry[60];
    for (int i = 0; i < truth.length; i++) {
      double x = 60 * random.nextDouble();
      double y = 60 * random.nextDouble();
      truth[i] = box(x, y, 6 + 4 * random.nextDouble(), 6 + 4 * random.nextDouble());
      found[i] = box(
          x + random.nextGaussian(),
          y + random.nextGaussian(),
          6 + 4 * random.nextDouble(),
          6 + 4 * random.nextDouble());
    }
    Collections.shuffle(Arrays.asList(found), random);

    Scores scores = compare(set(found), set(truth));

    double[] expected = plainly(set(found), set(truth));
    assertThat(scores.matched()).isEqualTo((int) expected[0]).isPositive();
    assertThat(scores.meanIou()).isCloseTo(expected[1], within(1e-9));
    assertThat(scores.matched() + scores.wrong().size()).isEqualTo(found.length);
    assertThat(scores.matched() + scores.missedOutlines().size()).isEqualTo(truth.length);
  }
}
