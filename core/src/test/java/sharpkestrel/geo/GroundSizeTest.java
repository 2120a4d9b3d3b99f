package sharpkestrel.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.withinPercentage;

import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;

class GroundSizeTest {

  /** Lengths of a degree on WGS 84, from the tables of the field (parallel, meridian; metres). */
  @ParameterizedTest
  @CsvSource({"0, 111320, 110574", "45, 78847, 111132", "60, 55800, 111412"})
  void degreesAreAsLongAsTheyAreThere(double latitude, double parallel, double meridian) {
    Grid grid =
        new Grid(100, 100, Affine.northUp(-2.7, latitude + 0.0005, 1e-5), CrsName.epsg(4326));

    GroundSize size = GroundSize.of(grid);

    assertThat(size.width()).isCloseTo(1e-5 * parallel, withinPercentage(0.05));
    assertThat(size.height()).isCloseTo(1e-5 * meridian, withinPercentage(0.05));
  }

  @Test
  void aProjectedPixelIsItsSideAndATurnedOneKeepsItsArea() {
    double c = Math.cos(0.4) * 0.5;
    double s = Math.sin(0.4) * 0.5;
    Grid turned =
        new Grid(10, 10, new Affine(c, s, 512_000, s, -c, 6_702_000), CrsName.epsg(32630));

    // near its central meridian the zone is a ten-thousandth and a half smaller than the ground
    assertThat(GroundSize.of(turned).area())
        .isCloseTo(0.25 / (0.9996018 * 0.9996018), withinPercentage(1e-4));
  }

  /**
   * Area of an outline on the ellipsoid: in the cylindrical equal-area projection areas are those of the ground (Snyder 1987, USGS
   * Professional Paper 1395, equations 10-13 and 3-12).
   */
  private static double geodesicArea(double[] lonLat, double a, double e2) {
    double e = Math.sqrt(e2);
    int n = lonLat.length / 2;
    double[] x = new double[n];
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      double sin = Math.sin(Math.toRadians(lonLat[2 * i + 1]));
      double q = e == 0
          ? 2 * sin
          : (1 - e2)
              * (sin / (1 - e2 * sin * sin) - Math.log((1 - e * sin) / (1 + e * sin)) / (2 * e));
      x[i] = a * Math.toRadians(lonLat[2 * i]);
      y[i] = a * q / 2;
    }
    double twice = 0;
    for (int i = 0; i < n; i++) {
      int j = (i + 1) % n;
      twice += (x[i] - x[0]) * (y[j] - y[0]) - (x[j] - x[0]) * (y[i] - y[0]);
    }
    return Math.abs(twice) / 2;
  }

  /** Where scenes lie in their systems; pixels of so many units. */
  @ParameterizedTest
  @CsvSource({
    "3857, -300000, 8400000, 0.5",
    "3857, 2000000, -1500000, 30",
    "32630, 512000, 6702000, 0.5",
    "32733, 800000, 7000000, 10",
    "4326, -2.8, 60.4, 0.000005",
    "4258, 12.5, -33.2, 0.0003",
    "3035, 2800000, 4900000, 20",
    "27700, 430000, 540000, 0.25",
    "2154, 300000, 6900000, 5",
    "28992, 120000, 480000, 1",
    "21781, 600000, 200000, 0.5",
    "2056, 2700000, 1200000, 0.1",
    "5070, 1200000, 2500000, 30",
    "2263, 1000000, 200000, 1",
    "3413, -500000, -1800000, 50",
    "3031, 1200000, 1500000, 50",
    "25832, 250000, 5900000, 0.2",
    "31467, 3500000, 5500000, 1",
    "2193, 1600000, 5400000, 1",
    "3395, 1500000, 7300000, 100",
    "6933, 5000000, 6000000, 100",
    "3577, 1500000, -3900000, 25"
  })
  void pixelsAreAsLargeAsTheyAreOnTheGround(int code, double x, double y, double pixel) {
    int side = 2000;
    Grid grid = new Grid(side, side, Affine.northUp(x, y, pixel), CrsName.epsg(code));
    LocalArea local = LocalArea.of(grid);
    Crs crs = Crs.of(grid.crs());
    DatumShift.Ellipsoid on = crs.ellipsoid();
    for (int part = 0; part < 9; part++) {
      int col = part % 3 * 900;
      int row = part / 3 * 900;
      double[] outline = outline(grid, col, row, 200);
      crs.toOwnDegrees().apply(outline, outline.length / 2);

      double area = GroundSize.of(grid).area() * local.at(col + 100, row + 100) * 200 * 200;

      assertThat(area)
          .as("at column %d, row %d", col, row)
          .isCloseTo(geodesicArea(outline, on.a(), on.e2()), withinPercentage(0.03));
    }
  }

  /** Of a square of pixels, with many corners to each side. */
  private static double[] outline(Grid grid, int col, int row, int size) {
    double[] xy = new double[8 * size];
    for (int i = 0; i < 4 * size; i++) {
      int k = i % size;
      double c = switch (i / size) {
        case 0 -> k;
        case 1 -> size;
        case 2 -> size - k;
        default -> 0;
      };
      double r = switch (i / size) {
        case 0 -> 0;
        case 1 -> k;
        case 2 -> size;
        default -> size - k;
      };
      xy[2 * i] = grid.affine().x(col + c, row + r);
      xy[2 * i + 1] = grid.affine().y(col + c, row + r);
    }
    return xy;
  }

  /** Perihelion is near 3 January at 0.9833, aphelion near 4 July at 1.0167 astronomical units. */
  @ParameterizedTest
  @CsvSource({
    "2031-01-03T12:00:00Z, 0.9833",
    "2031-07-04T12:00:00Z, 1.0167",
    "2031-04-03T12:00:00Z, 0.9997"
  })
  void theSunIsAsFarAsTheAlmanacSays(String time, double distance) {
    Acquisition acquisition = new Acquisition(Instant.parse(time), 30, 180, 0, 0, Map.of());

    assertThat(acquisition.sunDistance()).isCloseTo(distance, withinPercentage(0.03));
  }
}
