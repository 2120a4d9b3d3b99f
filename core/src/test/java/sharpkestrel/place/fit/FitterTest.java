package sharpkestrel.place.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.geo.FrameCamera;
import sharpkestrel.geo.GridModel;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.place.fit.TiePoint.Use;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.RasterException;

class FitterTest {

  private static final CrsName UTM = CrsName.epsg(32630);
  private static final ImageModel PLAIN =
      new GridModel(UTM, Affine.northUp(500_000, 6_702_000, 1).inverse());

  /** A camera at 2,600 m, tilted by two degrees, over hills of 300 m. */
  private static final FrameCamera CAMERA = new FrameCamera(
      UTM, 3000, 3000, 500_900, 6_700_950, 2600, 0.03, -0.025, 0.7, 4200, 0.02, 0.004, -0.003);

  private static double hills(double x, double y) {
    return 150 + 150 * Math.sin(x / 260) * Math.cos(y / 310);
  }

  /** Points on the hills as the camera sees them, off by so many pixels. */
  private static TiePoints seen(int count, double noise, long seed) {
    Random random = new Random(seed);
    List<TiePoint> points = new ArrayList<>();
    double[] image = new double[2];
    while (points.size() < count) {
      double x = 500_200 + 1400 * random.nextDouble();
      double y = 6_700_250 + 1400 * random.nextDouble();
      double h = hills(x, y);
      CAMERA.toImage(x, y, h, image);
      points.add(new TiePoint(
          points.size() + 1,
          image[0] + noise * random.nextGaussian(),
          image[1] + noise * random.nextGaussian(),
          x,
          y,
          h,
          Use.CONTROL,
          Double.NaN));
    }
    return new TiePoints(UTM, 3000, 3000, points);
  }

  @Test
  void aCameraIsFoundAgainFromExactPoints() {
    Fit fit = new Fitter(seen(40, 0, 1), PLAIN).fit(ModelKind.CAMERA);
    FrameCamera found = (FrameCamera) fit.model();

    assertThat(fit.rms()).isLessThan(0.01);
    assertThat(found.x()).isCloseTo(CAMERA.x(), within(1.0));
    assertThat(found.y()).isCloseTo(CAMERA.y(), within(1.0));
    assertThat(found.z()).isCloseTo(CAMERA.z(), within(5.0));
    assertThat(found.kappa()).isCloseTo(CAMERA.kappa(), within(1e-4));
    assertThat(found.focal()).isCloseTo(CAMERA.focal(), within(10.0));
  }

  @Test
  void aCameraFittedToNoisyPointsIsRightWhereItHasNone() {
    ImageModel found = new Fitter(seen(60, 0.5, 2), PLAIN).fit(ModelKind.CAMERA).model();
    double squares = 0;
    double[] image = new double[2];
    List<TiePoint> others = seen(400, 0, 3).points();
    for (TiePoint point : others) {
      found.toImage(point.x(), point.y(), point.height(), image);
      squares += Math.pow(image[0] - point.col(), 2) + Math.pow(image[1] - point.row(), 2);
    }
    // ten unknowns of 120 observations of half a pixel: about 0.5 * sqrt(2 * 10 / 120)
    assertThat(Math.sqrt(squares / others.size())).isLessThan(0.35);
  }

  @Test
  void overHillsNoMapOfThePlaneComesNearACamera() {
    Advice advice = Advice.of(new Fitter(seen(60, 0.4, 4), PLAIN), true);

    assertThat(advice.fit().kind()).isEqualTo(ModelKind.CAMERA);
    assertThat(advice.fit().leftOut()).isLessThan(0.8);
    assertThat(advice.reason()).contains("follows the relief");
    for (Fit fit : advice.fits()) {
      if (fit.kind() != ModelKind.CAMERA) {
        assertThat(fit.leftOut()).as(fit.kind().label()).isGreaterThan(1.5);
      }
    }
  }

  @Test
  void onPlainGroundTheStiffestModelThatHoldsIsAdvised() {
    Random random = new Random(5);
    List<TiePoint> points = new ArrayList<>();
    for (int i = 0; i < 24; i++) {
      double x = 500_000 + 2000 * random.nextDouble();
      double y = 6_700_000 + 2000 * random.nextDouble();
      double col = 0.98 * (x - 500_000) + 0.11 * (6_702_000 - y) + 0.3 * random.nextGaussian();
      double row = -0.05 * (x - 500_000) + 1.04 * (6_702_000 - y) + 0.3 * random.nextGaussian();
      points.add(new TiePoint(i, col, row, x, y, Double.NaN, Use.CONTROL, Double.NaN));
    }
    Advice advice = Advice.of(new Fitter(new TiePoints(UTM, 2000, 2000, points), PLAIN), false);

    assertThat(advice.fit().kind()).isEqualTo(ModelKind.AFFINE);
    Fit cubic = advice.fits().stream()
        .filter(f -> f.kind() == ModelKind.POLYNOMIAL_3)
        .findFirst()
        .orElseThrow();
    assertThat(cubic.rms()).as("nearer to its points").isLessThan(advice.fit().rms());
    assertThat(cubic.leftOut())
        .as("but not between them")
        .isGreaterThan(advice.fit().leftOut());
    assertThat(advice.reason()).contains("Affine").contains("bends where there are none");
  }

  @ParameterizedTest
  @EnumSource(value = ModelKind.class)
  void whatIsSaidOfPointsLeftOutIsWhatAFitWithoutThemSays(ModelKind kind) {
    TiePoints all = seen(16, 2, 6);
    Fit fit = new Fitter(all, PLAIN).fit(kind);
    for (int left = 0; left < 16; left += 5) {
      int out = all.points().get(left).id();
      TiePoints fewer = all.each(p -> p.id() == out ? p.as(Use.CHECK) : p);
      Fit without = new Fitter(fewer, PLAIN).fit(kind);

      assertThat(fit.residuals().get(left).leftOut())
          .isCloseTo(without.rms(Use.CHECK), within(0.02));
    }
  }

  @Test
  void pointsThatAreOffOrForCheckingDoNotMoveTheFit() {
    TiePoints good = seen(20, 0.2, 7);
    List<TiePoint> more = new ArrayList<>(good.points());
    more.add(new TiePoint(99, 10, 10, 500_900, 6_700_900, 200, Use.OFF, Double.NaN));
    more.add(new TiePoint(98, 2500, 10, 500_900, 6_700_900, 200, Use.CHECK, Double.NaN));
    Fit one = new Fitter(good, PLAIN).fit(ModelKind.AFFINE);
    Fit two = new Fitter(good.with(more), PLAIN).fit(ModelKind.AFFINE);

    assertThat(two.rms()).isEqualTo(one.rms());
    assertThat(two.rms(Use.CHECK)).isGreaterThan(100);
    assertThat(two.residuals()).hasSize(22);
  }

  @Test
  void residualsPointFromWhereAPointWasSeenToWhereTheModelPutsIt() {
    TiePoint point = new TiePoint(1, 10, 20, 500_015, 6_701_978, 0, Use.CHECK, Double.NaN);
    TiePoint control = new TiePoint(2, 100, 100, 500_100, 6_701_900, 0, Use.CONTROL, Double.NaN);
    Fit fit = new Fitter(new TiePoints(UTM, 200, 200, List.of(point, control)), PLAIN)
        .fit(ModelKind.SHIFT);

    assertThat(fit.residuals().getFirst().dx()).isCloseTo(5, within(1e-9));
    assertThat(fit.residuals().getFirst().dy()).isCloseTo(2, within(1e-9));
  }

  @Test
  void aCameraNamesThePointThatHasNoHeight() {
    TiePoints points = seen(8, 0, 8)
        .each(p -> p.id() == 3
            ? new TiePoint(3, p.col(), p.row(), p.x(), p.y(), Double.NaN, p.use(), p.score())
            : p);

    assertThatThrownBy(() -> new Fitter(points, PLAIN).fit(ModelKind.CAMERA))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("Point 3 has no height");
  }

  @Test
  void threePointsMakeNoCamera() {
    assertThatThrownBy(() -> new Fitter(seen(3, 0, 9), PLAIN).fit(ModelKind.CAMERA))
        .hasMessageContaining("needs 4 points");
  }

  @Test
  void nineOfTenErrorsLieWithinTheCircularError() {
    Random random = new Random(10);
    int within = 0;
    double squares = 0;
    double[] lengths = new double[20_000];
    for (int i = 0; i < lengths.length; i++) {
      lengths[i] = Math.hypot(random.nextGaussian(), random.nextGaussian());
      squares += lengths[i] * lengths[i];
    }
    double limit = Fit.circularError90(Math.sqrt(squares / lengths.length));
    for (double length : lengths) {
      within += length < limit ? 1 : 0;
    }
    assertThat(within / 20_000.0).isCloseTo(0.9, within(0.01));
  }
}
