package sharpkestrel.place.mosaic;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Window;

/** Tones, levels and shares on an overview of two scenes of 200 x 160 cells of 5 m that share 120 columns. */
class TonesTest {

  private static final Grid GRID =
      new Grid(280, 160, Affine.northUp(512_000, 6_702_000, 5), CrsName.epsg(32630));
  private static final Window ONE = new Window(0, 0, 200, 160);
  private static final Window TWO = new Window(80, 0, 200, 160);
  private static final double METRES = 5;

  private interface Seen {
    double as(double ground, int x, int y);
  }

  private static Overview overview(Seen two) {
    float[] first = new float[ONE.area()];
    float[] second = new float[TWO.area()];
    for (int y = 0; y < 160; y++) {
      for (int x = 0; x < 200; x++) {
        first[y * 200 + x] = (float) ground(x, y);
        second[y * 200 + x] = (float) two.as(ground(x + 80, y), x + 80, y);
      }
    }
    return new Overview(
        0, GRID, List.of(ONE, TWO), List.of(new float[][] {first}, new float[][] {second}));
  }

  private static double ground(int x, int y) {
    return 500 + 200 * Math.sin(x / 21.0) * Math.cos(y / 15.0) + 100 * Math.sin(y / 40.0);
  }

  private static Tone second(Overview overview, Balance balance, int degree) {
    Tone[][] tones = Tones.of(overview, 0, balance, degree, METRES, Job.QUIET);
    assertThat(tones[0][0].isUnchanged()).as("the anchor stays").isTrue();
    return tones[1][0];
  }

  @Test
  void gainAndOffsetAreFoundExactly() {
    Tone tone = second(overview((v, x, y) -> (v - 40) / 1.7), Balance.LINEAR, 0);
    assertThat(tone.curve(100)).isCloseTo(1.7 * 100 + 40, within(0.05));
    assertThat(tone.curve(400)).isCloseTo(1.7 * 400 + 40, within(0.05));
  }

  @Test
  void whatHasChangedDoesNotMoveThem() {
    // a tenth of the overlap is another field now, far brighter
    Tone tone = second(
        overview((v, x, y) -> x > 90 && x < 130 && y < 48 ? 3000 : 0.8 * v), Balance.LINEAR, 0);
    assertThat(tone.curve(400)).isCloseTo(500, within(1.0));
  }

  /**
   * A quarter of the ground has grown in one band, and each place of it by its own share, so that the distribution of all values is
   * another; what has not must be nearer to the anchor than by plain least squares, and where nothing has, as near.
   */
  @ParameterizedTest
  @ValueSource(booleans = {true, false})
  void aLinearBalanceIsNoFartherOffThanLeastSquares(boolean grown) {
    Random random = new Random(9);
    Seen seen = (v, x, y) -> {
      boolean field = grown && (x / 20 + y / 20) % 4 == 0;
      return (v - 60) / 1.4 + (field ? 0.5 * v : 0) + 4 * random.nextGaussian();
    };
    float[] later = new float[GRID.width() * GRID.height()];
    Overview overview = overview((v, x, y) -> {
      double value = seen.as(v, x, y);
      later[y * GRID.width() + x] = (float) value;
      return value;
    });

    Tone tone = second(overview, Balance.LINEAR, 0);

    double n = 0;
    double a = 0;
    double b = 0;
    double aa = 0;
    double ab = 0;
    for (int y = 0; y < 160; y++) {
      for (int x = 80; x < 200; x++) {
        double v = later[y * GRID.width() + x];
        n++;
        a += v;
        b += ground(x, y);
        aa += v * v;
        ab += v * ground(x, y);
      }
    }
    double gain = (ab - a * b / n) / (aa - a * a / n);
    double offset = (b - gain * a) / n;
    double ours = 0;
    double plain = 0;
    for (int y = 0; y < 160; y++) {
      for (int x = 80; x < 200; x++) {
        if (!grown || (x / 20 + y / 20) % 4 != 0) {
          double v = later[y * GRID.width() + x];
          ours += Math.abs(tone.curve(v) - ground(x, y));
          plain += Math.abs(gain * v + offset - ground(x, y));
        }
      }
    }
    assertThat(ours).isLessThan(grown ? 0.3 * plain : 1.02 * plain);
  }

  @Test
  void aCurveNeverDescends() {
    Random random = new Random(4);
    Tone tone =
        second(overview((v, x, y) -> v + 150 * random.nextGaussian()), Balance.HISTOGRAM, 0);
    for (int k = 1; k < tone.to().length; k++) {
      assertThat(tone.to()[k]).isGreaterThanOrEqualTo(tone.to()[k - 1]);
    }
  }

  @Test
  void aTrendIsFoundAsItsInverse() {
    Tone tone = second(overview((v, x, y) -> v / (1 + 0.2 * (2.0 * y / 160 - 1))), Balance.NONE, 1);
    assertThat(tone.trend()).hasSize(2);
    assertThat(tone.trend()[0]).isCloseTo(0, within(0.02));
    assertThat(tone.trend()[1]).isCloseTo(0.2, within(0.02));
  }

  @Test
  void levelsAreTheSmoothDifferenceAndNothingElse() {
    Overview overview = overview((v, x, y) -> v + 0.5 * y);
    Levels levels = Levels.of(overview, unchanged(), METRES);
    assertThat(levels.between(0, 1, 0, 140, 80)).isCloseTo(40, within(1.5));
    assertThat(levels.between(1, 0, 0, 140, 80)).isCloseTo(-40, within(1.5));
    assertThat(levels.between(0, 1, 0, 140, 30)).isCloseTo(15, within(1.5));
  }

  @Test
  void aBlockThatHasChangedIsNoLevel() {
    Overview overview =
        overview((v, x, y) -> v + 10 + (x >= 130 && x < 140 && y >= 80 && y < 90 ? 2000 : 0));
    Levels levels = Levels.of(overview, unchanged(), METRES);
    assertThat(levels.between(0, 1, 0, 135, 85)).isCloseTo(10, within(1.0));
  }

  private static Tone[][] unchanged() {
    return new Tone[][] {{Tone.UNCHANGED}, {Tone.UNCHANGED}};
  }

  @Test
  void sharesAreHalvesOnASeamAndNoneAtTheirDistance() {
    Overview overview = overview((v, x, y) -> v);
    GeometryFactory factory = new GeometryFactory();
    PolygonFill[] areas = {
      new PolygonFill(
          factory.toGeometry(new Envelope(512_000, 512_700, 6_701_200, 6_702_000)), GRID),
      new PolygonFill(
          factory.toGeometry(new Envelope(512_700, 513_400, 6_701_200, 6_702_000)), GRID)
    };
    Shares shares = new Shares(overview, areas, 20);
    // the seam is at column 140
    assertThat(shares.of(0, 140, 80)).isCloseTo(0.5, within(1e-6));
    assertThat(shares.of(0, 130, 80)).isCloseTo(0.75, within(1e-6));
    assertThat(shares.of(1, 130, 80)).isCloseTo(0.25, within(1e-6));
    assertThat(shares.of(1, 119, 80)).isZero();
    assertThat(shares.of(0, 161, 80)).isZero();
    for (double x = 0.5; x < 280; x += 7) {
      assertThat(shares.of(0, x, 33) + shares.of(1, x, 33)).isCloseTo(1, within(1e-5));
    }
  }
}
