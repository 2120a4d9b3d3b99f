package sharpkestrel.place.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.raster.RasterException;

class PlaneFitsTest {

  private static double[][] scattered(int count, long seed) {
    Random random = new Random(seed);
    double[][] points = new double[count][];
    for (int i = 0; i < count; i++) {
      points[i] =
          new double[] {500_000 + 2000 * random.nextDouble(), 6_700_000 + 1500 * random.nextDouble()
          };
    }
    return points;
  }

  private static double[][] mapped(double[][] from, PlaneMap map) {
    double[][] to = new double[from.length][2];
    for (int i = 0; i < from.length; i++) {
      map.apply(from[i][0], from[i][1], to[i]);
    }
    return to;
  }

  /** The stiffest map of each kind that the kind must find again to the last digits. */
  private static PlaneMap example(ModelKind kind) {
    return switch (kind) {
      case SHIFT ->
        (u, v, xy) -> {
          xy[0] = u - 499_000;
          xy[1] = v - 6_699_500;
        };
      case SIMILARITY ->
        (u, v, xy) -> {
          xy[0] = 0.6 * (u - 5e5) - 0.8 * (v - 6.7e6) + 17;
          xy[1] = 0.8 * (u - 5e5) + 0.6 * (v - 6.7e6) - 5;
        };
      case PROJECTIVE ->
        (u, v, xy) -> {
          double w = 1 + 1e-4 * (u - 5e5) - 5e-5 * (v - 6.7e6);
          xy[0] = (2 * (u - 5e5) + 0.1 * (v - 6.7e6) + 12) / w;
          xy[1] = (-0.2 * (u - 5e5) + 1.7 * (v - 6.7e6) - 70) / w;
        };
      case POLYNOMIAL_2, POLYNOMIAL_3 ->
        (u, v, xy) -> {
          double a = (u - 5e5) / 1000;
          double b = (v - 6.7e6) / 1000;
          double cubed = kind == ModelKind.POLYNOMIAL_3 ? 4 * a * a * b - 3 * b * b * b : 0;
          xy[0] = 900 * a + 20 * b + 14 * a * a - 3 * a * b + cubed;
          xy[1] = 30 * a - 850 * b + 6 * b * b + 2 * a * b - 2 * cubed;
        };
      default ->
        (u, v, xy) -> {
          xy[0] = 1.9 * (u - 5e5) + 0.2 * (v - 6.7e6) + 3;
          xy[1] = 0.3 * (u - 5e5) - 2.1 * (v - 6.7e6) + 3000;
        };
    };
  }

  @ParameterizedTest
  @EnumSource(
      value = ModelKind.class,
      names = {"CAMERA", "UNCHANGED"},
      mode = EnumSource.Mode.EXCLUDE)
  void aMapOfItsKindIsFoundAgain(ModelKind kind) {
    double[][] from = scattered(14, 1);
    PlaneMap truth = example(kind);
    PlaneMap found = PlaneFits.fit(kind, from, mapped(from, truth));

    double[] expected = new double[2];
    double[] xy = new double[2];
    for (double[] at : scattered(60, 2)) {
      truth.apply(at[0], at[1], expected);
      found.apply(at[0], at[1], xy);
      assertThat(xy[0]).isCloseTo(expected[0], within(1e-5));
      assertThat(xy[1]).isCloseTo(expected[1], within(1e-5));
    }
  }

  @ParameterizedTest
  @EnumSource(
      value = ModelKind.class,
      names = {"SPLINE", "PIECEWISE"})
  void whatInterpolatesPassesThroughItsPoints(ModelKind kind) {
    double[][] from = scattered(20, 3);
    double[][] to = scattered(20, 4);
    PlaneMap map = PlaneFits.fit(kind, from, to);

    double[] xy = new double[2];
    for (int i = 0; i < from.length; i++) {
      map.apply(from[i][0], from[i][1], xy);
      assertThat(xy).containsExactly(to[i], within(1e-5));
    }
  }

  @ParameterizedTest
  @EnumSource(
      value = ModelKind.class,
      names = {"SIMILARITY", "AFFINE", "PROJECTIVE", "POLYNOMIAL_2", "POLYNOMIAL_3"})
  void noOtherMapOfTheKindIsNearerToNoisyPoints(ModelKind kind) {
    double[][] from = scattered(25, 5);
    double[][] to = mapped(from, example(kind));
    Random random = new Random(6);
    for (double[] point : to) {
      point[0] += random.nextGaussian();
      point[1] += random.nextGaussian();
    }
    double least = squares(PlaneFits.fit(kind, from, to), from, to);

    for (int k = 0; k < 40; k++) {
      double[][] other = new double[to.length][];
      for (int i = 0; i < to.length; i++) {
        other[i] = new double[] {
          to[i][0] + 0.1 * random.nextGaussian(), to[i][1] + 0.1 * random.nextGaussian()
        };
      }
      assertThat(squares(PlaneFits.fit(kind, from, other), from, to)).isGreaterThan(least - 1e-9);
    }
  }

  private static double squares(PlaneMap map, double[][] from, double[][] to) {
    double sum = 0;
    double[] xy = new double[2];
    for (int i = 0; i < from.length; i++) {
      map.apply(from[i][0], from[i][1], xy);
      sum += Math.pow(xy[0] - to[i][0], 2) + Math.pow(xy[1] - to[i][1], 2);
    }
    return sum;
  }

  /** The closed form of what a spline says of a point it does not know, against fitting it without the point. */
  @Test
  void aSplineKnowsItsErrorAtAPointLeftOut() {
    double[][] from = scattered(18, 7);
    double[][] to = scattered(18, 8);
    double[][] leftOut = SplineMap.fit(from, to).leftOut();

    double[] xy = new double[2];
    for (int left = 0; left < from.length; left++) {
      double[][] fewerFrom = new double[from.length - 1][];
      double[][] fewerTo = new double[from.length - 1][];
      for (int i = 0, k = 0; i < from.length; i++) {
        if (i != left) {
          fewerFrom[k] = from[i];
          fewerTo[k++] = to[i];
        }
      }
      SplineMap.fit(fewerFrom, fewerTo).apply(from[left][0], from[left][1], xy);
      assertThat(leftOut[left][0]).isCloseTo(xy[0] - to[left][0], within(1e-4));
      assertThat(leftOut[left][1]).isCloseTo(xy[1] - to[left][1], within(1e-4));
    }
  }

  @Test
  void trianglesAreJoinedWithoutSteps() {
    double[][] from = scattered(30, 9);
    double[][] to = mapped(from, example(ModelKind.POLYNOMIAL_2));
    PlaneMap map = PlaneFits.fit(ModelKind.PIECEWISE, from, to);

    double[] before = new double[2];
    double[] after = new double[2];
    for (double t = 0; t < 1; t += 1e-4) {
      double u = 499_500 + 3000 * t;
      double v = 6_699_700 + 2100 * t;
      map.apply(u, v, after);
      if (t > 0) {
        assertThat(Math.hypot(after[0] - before[0], after[1] - before[1])).isLessThan(2);
      }
      before = after.clone();
    }
  }

  @ParameterizedTest
  @EnumSource(
      value = ModelKind.class,
      names = {"AFFINE", "PROJECTIVE", "POLYNOMIAL_2", "POLYNOMIAL_3", "SPLINE", "PIECEWISE"})
  void pointsOnOneLineAreRefused(ModelKind kind) {
    double[][] from = new double[12][];
    for (int i = 0; i < from.length; i++) {
      from[i] = new double[] {500_000 + 30.0 * i, 6_700_000 + 10.0 * i};
    }
    assertThatThrownBy(() -> PlaneFits.fit(kind, from, mapped(from, example(kind))))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("one line");
  }

  @Test
  void tooFewPointsAreCounted() {
    double[][] two = scattered(2, 1);

    assertThatThrownBy(() -> PlaneFits.fit(ModelKind.AFFINE, two, two))
        .hasMessage(
            "Affine needs 3 points that are on; there are 2. Add points, or choose a stiffer"
                + " model.");
  }
}
