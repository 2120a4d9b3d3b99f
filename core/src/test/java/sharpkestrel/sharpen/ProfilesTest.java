package sharpkestrel.sharpen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.sharpen.profile.BandChoice;
import sharpkestrel.sharpen.profile.Profile;
import sharpkestrel.sharpen.profile.ProfileReport;
import sharpkestrel.sharpen.profile.Separability;

class ProfilesTest {

  private static final GeometryFactory SHAPES = new GeometryFactory();

  private static Profile of(double mean, double deviation) {
    return new Profile("p", 100, new double[] {mean}, new double[][] {{deviation * deviation}});
  }

  @Test
  void equalSpreadsAreApartByTheirClosedForm() {
    // B = d² / 8 s²: two spreads apart, exp(-1/2)
    double apart = 2 * (1 - Math.exp(-0.5));

    assertThat(Separability.jeffriesMatusita(of(10, 3), of(16, 3), new int[] {0}, 0))
        .isCloseTo(apart, within(1e-3));
    assertThat(Separability.transformedDivergence(of(10, 3), of(16, 3), new int[] {0}, 0))
        .isCloseTo(apart, within(1e-3));
  }

  @Test
  void unequalSpreadsAreApartWithoutADifferenceOfMeans() {
    // B = ln((s1² + s2²) / (2 s1 s2)) / 2, D = (s1² - s2²)(1/s2² - 1/s1²) / 2
    double b = 0.5 * Math.log((1 + 16) / (2.0 * 4));
    double d = 0.5 * (16 - 1) * (1 - 1 / 16.0);

    assertThat(Separability.jeffriesMatusita(of(5, 1), of(5, 4), new int[] {0}, 0))
        .isCloseTo(2 * (1 - Math.exp(-b)), within(2e-3));
    assertThat(Separability.transformedDivergence(of(5, 1), of(5, 4), new int[] {0}, 0))
        .isCloseTo(2 * (1 - Math.exp(-d / 8)), within(2e-3));
  }

  @Test
  void theSameIsNotApartAndTwoConstantsAreAltogether() {
    assertThat(Separability.jeffriesMatusita(of(5, 2), of(5, 2), new int[] {0}, 0))
        .isZero();
    assertThat(Separability.jeffriesMatusita(of(5, 0), of(9, 0), new int[] {0}, 1.0 / 12))
        .isGreaterThan(1.99);
  }

  /** Whole numbers from -5 to 5, of each band by itself. */
  private static double noise(int band, int x, int y) {
    return new Random(1_000_003L * band + 1009L * y + x).ints(3, -5, 6).toArray()[2];
  }

  /** Left half and right half differ in the second, fourth and fifth band only, in that order of strength. */
  private static Raster scene() {
    return Made.placed(
        40,
        20,
        1,
        (b, x, y) -> {
          double step = b == 1 ? 30 : b == 3 ? 20 : b == 4 ? 8 : 0;
          return 100 + noise(b, x, y) + (x < 20 ? 0 : step);
        },
        BandRole.VIOLET,
        BandRole.BLUE,
        BandRole.GREEN,
        BandRole.RED,
        BandRole.NEAR_INFRARED);
  }

  private static Geometry box(int x0, int y0, int x1, int y1) {
    return SHAPES.toGeometry(
        new Envelope(512_000 + x0, 512_000 + x1, 6_702_000 - y1, 6_702_000 - y0));
  }

  private static ProfileReport report() {
    Table table = new Table(
        3, List.of(Table.Column.ofTexts("name", "Name", List.of("west", "east", "west"))));
    OutlineSet areas = new OutlineSet(
        CrsName.epsg(32630),
        List.of(box(0, 0, 10, 10), box(22, 0, 38, 20), box(0, 10, 10, 20)),
        table);
    return new Profiles(scene(), areas, Optional.empty()).run(Job.QUIET);
  }

  @Test
  void areasOfOneNameMakeOneProfileOfTheirPixels() {
    ProfileReport report = report();

    assertThat(report.profiles()).extracting(Profile::name).containsExactly("west", "east");
    assertThat(report.profiles()).extracting(Profile::pixels).containsExactly(200L, 320L);
    double sum = 0;
    double squares = 0;
    for (int y = 0; y < 20; y++) {
      for (int x = 0; x < 10; x++) {
        double v = 100 + noise(1, x, y);
        sum += v;
        squares += v * v;
      }
    }
    Profile west = report.profiles().get(0);
    assertThat(west.mean()[1]).isCloseTo(sum / 200, within(1e-9));
    assertThat(west.spread(1))
        .isCloseTo(Math.sqrt(squares / 200 - sum / 200 * (sum / 200)), within(1e-6));
  }

  @Test
  void theThreeBandsThatDifferAreTheBest() {
    BandChoice best = report().choices().get(0);

    assertThat(best.bands()).containsExactly(1, 3, 4);
    assertThat(report().toText()).contains("Best three bands: blue, red, near infrared");
  }

  @Test
  void aPointIsThePixelUnderIt() {
    Profile point = Profile.of(
        "here",
        scene(),
        SHAPES.createPoint(new Coordinate(512_000 + 3.2, 6_702_000 - 4.9)),
        Job.QUIET);

    assertThat(point.pixels()).isEqualTo(1);
    assertThat(point.mean()[0]).isEqualTo(100 + noise(0, 3, 4));
  }

  @Test
  void aPlaceOutsideTheSceneIsNamed() {
    assertThatThrownBy(() -> Profile.of("far away", scene(), box(500, 0, 510, 10), Job.QUIET))
        .hasMessageContaining("'far away'");
  }
}
