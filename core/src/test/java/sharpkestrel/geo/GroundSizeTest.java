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

    assertThat(GroundSize.of(turned).area()).isCloseTo(0.25, withinPercentage(1e-6));
    assertThat(GroundSize.of(turned).mean()).isCloseTo(0.5, withinPercentage(1e-6));
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
