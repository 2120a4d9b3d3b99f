package sharpkestrel.outline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import sharpkestrel.raster.Tracer;

class OutlineTest {

  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void aTracedMaskHasTheAreaOfItsPixels(long seed) {
    Random random = new Random(seed);
    int width = 20 + random.nextInt(20);
    int height = 15 + random.nextInt(20);
    boolean[] mask = new boolean[width * height];
    int count = 0;
    for (int i = 0; i < mask.length; i++) {
      mask[i] = random.nextDouble() < 0.15 * (1 + seed % 5);
      count += mask[i] ? 1 : 0;
    }

    Geometry traced = Tracer.trace(mask, width, height, 100, 50);

    assertThat(traced.getArea()).as("seed " + seed).isEqualTo(count);
    for (int i = 0; i < mask.length; i++) {
      var centre =
          GEOMETRY.createPoint(new Coordinate(100 + i % width + 0.5, 50 + i / width + 0.5));
      assertThat(traced.getNumGeometries() == 0
              || !traced.isValid()
              || traced.covers(centre) == mask[i])
          .isTrue();
    }
  }

  @Test
  void aRingKeepsItsHoleAndTheIslandInIt() {
    boolean[] mask = new boolean[49];
    for (int y = 0; y < 7; y++) {
      for (int x = 0; x < 7; x++) {
        boolean border = x == 0 || y == 0 || x == 6 || y == 6;
        mask[y * 7 + x] = border || x == 3 && y == 3;
      }
    }

    Geometry traced = Tracer.trace(mask, 7, 7, 0, 0);

    assertThat(traced.getNumGeometries()).isEqualTo(2);
    assertThat(traced.getArea()).isEqualTo(25);
    assertThat(((Polygon) traced.getGeometryN(0)).getNumInteriorRing()).isEqualTo(1);
  }

  @ParameterizedTest
  @ValueSource(doubles = {0, 10, 27, 45, 63, 88})
  void theSmallestRectangleOfATurnedOneIsItself(double degrees) {
    double a = Math.toRadians(degrees);
    double[] u = {-8, 8, 8, -8};
    double[] v = {-3, -3, 3, 3};
    double[] xs = new double[4];
    double[] ys = new double[4];
    for (int i = 0; i < 4; i++) {
      xs[i] = 20 + u[i] * Math.cos(a) - v[i] * Math.sin(a);
      ys[i] = 30 + u[i] * Math.sin(a) + v[i] * Math.cos(a);
    }

    MinimumRectangle box = MinimumRectangle.ofHull(xs, ys, 4);

    assertThat(box.length()).isCloseTo(16, within(1e-9));
    assertThat(box.width()).isCloseTo(6, within(1e-9));
    assertThat(box.angle()).isCloseTo(a, within(1e-9));
    assertThat(box.centreX()).isCloseTo(20, within(1e-9));
  }

  private static Polygon pixels(Geometry shape, int size) {
    boolean[] mask = new boolean[size * size];
    for (int i = 0; i < mask.length; i++) {
      mask[i] = shape.covers(GEOMETRY.createPoint(new Coordinate(i % size + 0.5, i / size + 0.5)));
    }
    Geometry traced = Tracer.trace(mask, size, size, 0, 0);
    Geometry largest = traced.getGeometryN(0);
    for (int k = 1; k < traced.getNumGeometries(); k++) {
      largest =
          traced.getGeometryN(k).getArea() > largest.getArea() ? traced.getGeometryN(k) : largest;
    }
    return (Polygon) largest;
  }

  @ParameterizedTest
  @ValueSource(doubles = {0, 7, 19, 33, 45, 71})
  void aTurnedRoofOfPixelsBecomesItsRectangle(double degrees) {
    Geometry roof = AffineTransformation.rotationInstance(Math.toRadians(degrees), 30, 30)
        .transform(box(16, 22, 44, 38));

    Squarer.Result result = Squarer.square(pixels(roof, 60), 1.2);

    assertThat(result.outline().getNumPoints()).isEqualTo(5);
    assertThat(Overlap.iou(result.outline(), roof)).isGreaterThan(0.93);
  }

  @ParameterizedTest
  @ValueSource(doubles = {0, 12, 30, 52})
  void anElKeepsItsSixCornersSquare(double degrees) {
    Geometry el = box(12, 12, 50, 26).union(box(12, 12, 27, 48));
    Geometry turned =
        AffineTransformation.rotationInstance(Math.toRadians(degrees), 30, 30).transform(el);

    Squarer.Result result = Squarer.square(pixels(turned, 64), 1.2);

    assertThat(result.shape()).isEqualTo(Squarer.Shape.SQUARED);
    assertThat(result.outline().getNumPoints()).isEqualTo(7);
    assertThat(Overlap.iou(result.outline(), turned)).isGreaterThan(0.9);
    Coordinate[] ring = result.outline().getExteriorRing().getCoordinates();
    for (int i = 0; i + 2 < ring.length; i++) {
      double dot = (ring[i + 1].x - ring[i].x) * (ring[i + 2].x - ring[i + 1].x)
          + (ring[i + 1].y - ring[i].y) * (ring[i + 2].y - ring[i + 1].y);
      assertThat(dot).isCloseTo(0, within(1e-6));
    }
  }

  @Test
  void aRoundPondIsNotForcedSquare() {
    Geometry pond = GEOMETRY.createPoint(new Coordinate(30, 30)).buffer(22, 16);

    Squarer.Result result = Squarer.square(pixels(pond, 64), 1.0);

    assertThat(Overlap.iou(result.outline(), pond)).isGreaterThan(0.8);
  }

  private static Geometry box(double x0, double y0, double x1, double y1) {
    return GEOMETRY.toGeometry(new org.locationtech.jts.geom.Envelope(x0, x1, y0, y1));
  }
}
