package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.geo.Crs;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;

/** Systems that files give by parameters, from another writer; where a point lies, by {@code cs2cs} with no shift of datums. */
class CrsByParametersTest {

  @TempDir
  Path folder;

  private static double[] degrees(Raster raster) {
    CrsName crs = raster.grid().crs();
    assertThat(crs.isKnown()).isTrue();
    boolean geographic = Crs.of(crs).isGeographic();
    double[] xy = {
      raster.grid().affine().c() + (geographic ? 0.5 : 50),
      raster.grid().affine().f() - (geographic ? 0.3 : 30)
    };
    Crs.of(crs).to(Crs.of(Crs.WGS84)).apply(xy, 1);
    return xy;
  }

  @ParameterizedTest
  @CsvSource({
    "laea.tif, -18.954378566015, 31.781631007807",
    "lcc2.tif, 3.000651974364, 46.499729863179",
    "lcc1.tif, -1.685844290207, 35.013159672928",
    "aea.tif, -95.022739360185, 24.829400756294",
    "tm.tif, 13.623749770485, 11.805261360740",
    "tmft.tif, 12.994491896793, 10.544797013948",
    "sinu.tif, 0.900213650268, 1.810497072591",
    "stere.tif, -42.136208838595, 71.665812761348",
    "sterea.tif, 4.587113023353, 51.581295122594",
    "merc.tif, 10.898764441762, 1.808163414743",
    "omerc.tif, 101.299358311572, 6.710638195164",
    "cea.tif, 1.036934989512, 1.567681501664",
    "poly.tif, -53.100790474163, -1.808780121819",
    "cass.tif, -61.176218737889, 10.530954280067",
    "longlat.tif, 10.500000000000, 49.697417225991"
  })
  void aPointLiesWhereOtherSoftwareHasItBeforeAndAfterWriting(String name, double lon, double lat)
      throws IOException {
    Raster raster = RasterFiles.open(Path.of("src/test/resources/crs", name));
    Path written = folder.resolve("written.tif");

    GeoTiffWriter.write(raster, written, Compression.NONE, Job.QUIET);

    Raster back = RasterFiles.open(written);
    assertThat(back.grid()).isEqualTo(raster.grid());
    // two millimetres: the series of two implementations of an equal-area cone end there
    assertThat(degrees(raster)[0]).isCloseTo(lon, within(2e-8));
    assertThat(degrees(raster)[1]).isCloseTo(lat, within(2e-8));
    assertThat(theirs(written)).isEqualTo(theirs(Path.of("src/test/resources/crs", name)));
  }

  /** On the ellipsoid (EPSG 1028), where some software takes a sphere: the arc of the meridian by its integral. */
  @Test
  void evenlySpacedParallelsLieOnTheEllipsoid() {
    double latitude = degrees(RasterFiles.open(Path.of("src/test/resources/crs/eqc.tif")))[1];

    double e2 = 0.00669437999014;
    double arc = 0;
    int steps = 100_000;
    double step = Math.toRadians(latitude) / steps;
    for (int k = 0; k < steps; k++) {
      double sin = Math.sin((k + 0.5) * step);
      arc += step * 6_378_137 * (1 - e2) / Math.pow(1 - e2 * sin * sin, 1.5);
    }
    assertThat(arc).isCloseTo(199_970, within(1e-3));
  }

  /** What the other software reads of the system, without its name. */
  private static String theirs(Path file) throws IOException {
    assumeThat(Files.isExecutable(Path.of("/usr/bin/gdalsrsinfo"))).isTrue();
    Process info = new ProcessBuilder("gdalsrsinfo", "-o", "proj4", file.toString()).start();
    return new String(info.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
  }
}
