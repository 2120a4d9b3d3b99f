package sharpkestrel.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;

class GeoTest {

  /** Expected values by PROJ 9.1 ({@code cs2cs}), with axes turned to east and north. */
  @ParameterizedTest
  @CsvSource({
    "512340.2, 6702118.7, 32631, 182558.2447, 6716034.5757",
    "512340.2, 6702118.7, 3035, 3620394.6707, 4213948.9706",
    "508000, 6699000, 3857, -317783.2918, 8495473.9982",
    "400000, 5100000, 3035, 3221187.1309, 2654311.0217",
    "400000, 5100000, 32631, -64149.7245, 5125102.9485"
  })
  void transformsAgreeWithProjToACentimetre(
      double x, double y, int code, double east, double north) {
    double[] point = {x, y};

    Crs.of(CrsName.epsg(32630)).to(Crs.of(CrsName.epsg(code))).apply(point, 1);

    assertThat(point[0]).isCloseTo(east, within(0.01));
    assertThat(point[1]).isCloseTo(north, within(0.01));
  }

  @Test
  void longitudesAndLatitudesAgreeWithProj() {
    double[] point = {512340.2, 6702118.7};

    Crs.of(CrsName.epsg(32630)).to(Crs.of(Crs.WGS84)).apply(point, 1);

    assertThat(point[0]).isCloseTo(-2.775672432, within(1e-7));
    assertThat(point[1]).isCloseTo(60.455111572, within(1e-7));
  }

  @Test
  void anUnknownSystemIsNamedInTheError() {
    assertThatThrownBy(() -> Crs.of(new CrsName("EPSG:99999999")))
        .isInstanceOf(CrsException.class)
        .hasMessageContaining("EPSG:99999999");
  }

  private static Rpc model(long seed) {
    Random random = new Random(seed);
    double[][] c = new double[4][20];
    for (double[] polynomial : c) {
      for (int i = 0; i < 20; i++) {
        polynomial[i] = 0.002 * random.nextGaussian();
      }
    }
    c[0][2] = -1;
    c[0][1] = 0.2;
    c[2][1] = 1;
    c[2][2] = 0.15;
    c[0][3] = 0.05;
    c[2][3] = -0.04;
    c[1][0] = 1;
    c[3][0] = 1;
    return new Rpc(0, 0, 2047.5, 2000, 60.4, -2.7, 120, 2048, 2048, 0.01, 0.02, 200, c);
  }

  @ParameterizedTest
  @CsvSource({"1", "2", "3", "4"})
  void theRpcEqualsItsDefinitionTermByTerm(long seed) {
    Rpc rpc = model(seed);
    double[] terms = new double[20];
    double[] image = new double[2];
    Rpc.terms((-2.69 + 2.7) / 0.02, (60.403 - 60.4) / 0.01, (180 - 120) / 200.0, terms);

    rpc.toImage(-2.69, 60.403, 180, image);

    assertThat(image[1]).isCloseTo(ratio(rpc, terms, 0) * 2048 + 2047.5 + 0.5, within(1e-8));
    assertThat(image[0]).isCloseTo(ratio(rpc, terms, 2) * 2048 + 2000 + 0.5, within(1e-8));
  }

  private static double ratio(Rpc rpc, double[] terms, int k) {
    double up = 0;
    double down = 0;
    for (int i = 0; i < 20; i++) {
      up += rpc.coefficients()[k][i] * terms[i];
      down += rpc.coefficients()[k + 1][i] * terms[i];
    }
    return up / down;
  }

  @ParameterizedTest
  @CsvSource({"1", "2", "3", "4"})
  void theRpcsInverseLeadsBack(long seed) {
    Rpc rpc = model(seed);
    double[] ground = new double[2];
    double[] image = new double[2];

    rpc.toGround(812.25, 3011.75, 210, ground);
    rpc.toImage(ground[0], ground[1], 210, image);

    assertThat(image[0]).isCloseTo(812.25, within(1e-5));
    assertThat(image[1]).isCloseTo(3011.75, within(1e-5));
  }

  @Test
  void aCutOutImagesModelIsMovedAndACoarserOnesScaled() {
    Rpc rpc = model(5);
    double[] whole = new double[2];
    double[] part = new double[2];
    double[] coarse = new double[2];

    rpc.toImage(-2.695, 60.401, 90, whole);
    rpc.shifted(100, 260).toImage(-2.695, 60.401, 90, part);
    rpc.scaled(4).toImage(-2.695, 60.401, 90, coarse);

    assertThat(part[0]).isCloseTo(whole[0] - 100, within(1e-9));
    assertThat(part[1]).isCloseTo(whole[1] - 260, within(1e-9));
    assertThat(coarse[0]).isCloseTo(whole[0] / 4, within(1e-9));
    assertThat(coarse[1]).isCloseTo(whole[1] / 4, within(1e-9));
  }

  @Test
  void reflectanceFollowsItsFormula() {
    Acquisition acquisition = new Acquisition(
        Instant.parse("2031-01-03T12:00:00Z"),
        30,
        180,
        0,
        0,
        Map.of(BandRole.RED, new Acquisition.Calibration(0.2, 1, 1600)));

    double[] linear = acquisition.reflectance(BandRole.RED).orElseThrow();

    // Near perihelion the sun is 0.983 astronomical units away; radiance of number 500 is 101.
    double expected = Math.PI * 101 * 0.9833 * 0.9833 / (1600 * 0.5);
    assertThat(linear[0] * 500 + linear[1]).isCloseTo(expected, within(5e-4));
  }

  @Test
  void aShapeIsMovedCornerByCornerAndTheFirstStaysAsItIs() {
    Geometry square =
        new GeometryFactory().toGeometry(new Envelope(512_000, 512_100, 6_702_000, 6_702_100));
    CoordinateMap map = Crs.of(CrsName.epsg(32630)).to(Crs.of(CrsName.epsg(32631)));
    double[] corner = {512_100, 6_702_100};
    map.apply(corner, 1);

    Geometry moved = map.of(square);

    assertThat(moved.getCoordinates())
        .anySatisfy(
            c -> assertThat(c.distance(new Coordinate(corner[0], corner[1]))).isLessThan(1e-6));
    assertThat(square.getEnvelopeInternal().getMaxX()).isEqualTo(512_100);
    assertThat(moved.getEnvelopeInternal().getMaxX()).isLessThan(300_000);
  }
}
