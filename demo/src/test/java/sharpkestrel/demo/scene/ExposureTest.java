package sharpkestrel.demo.scene;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assertions.withinPercentage;

import org.junit.jupiter.api.Test;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.things.Solid;
import sharpkestrel.raster.Window;

/** Pictures of simple things against closed forms. */
class ExposureTest {

  private static final int SIZE = OpenSea.SIZE;
  private static final int RATIO = 4;
  private static final Surface WHITE = Surface.of(Material.MARK, OpenSea.flat(0.8f));

  @Test
  void bandMeansOverALevelTargetEqualItsSpectrumWithinNoise() {
    OpenSea sea = new OpenSea();
    Surface target = Surface.of(Material.MARK, Material.SAND.spectrum());
    sea.things.add(Solid.box(
        Polygons.oblong(sea.east, sea.north, 0.3, 60, 60), 0, OpenSea.DECK + 0.2, target, target));

    float[][] planes = sea.exposure().numbers(new Window(0, 0, SIZE, SIZE));

    Conditions c = sea.scene.conditions();
    double sine = Math.sin(Math.toRadians(OpenSea.SUN.elevation()));
    int middle = SIZE / RATIO / 2;
    for (int b = 0; b < Material.BANDS; b++) {
      double mean = 0;
      for (int y = -6; y < 6; y++) {
        for (int x = -6; x < 6; x++) {
          mean += planes[b + 1][(middle + y) * (SIZE / RATIO) + middle + x] / 144;
        }
      }
      double rho = Material.SAND.reflectance(b);
      double light = rho * (sine * c.air().down(b) + c.air().sky(b)) * c.air().up(b)
          + c.air().haze(b);
      double expected = light * sea.scene.scale(b);
      // 144 pixels: their mean is known to a twelfth of one pixel's noise
      double noise = sharpkestrel.demo.sensor.Detector.spread(expected) / 12;
      assertThat(mean).as("band " + b).isCloseTo(expected, within(4 * noise + 0.004 * expected));
    }
  }

  /** Along the sun's azimuth from the foot of a wall, the deck lies in shadow for height over tangent of elevation. */
  @Test
  void aShadowIsAsLongAsHeightOverTheTangentOfTheSunsElevation() {
    OpenSea sea = new OpenSea();
    double height = 15;
    sea.things.add(Solid.box(
        Polygons.oblong(sea.east, sea.north, 0, 6, 6), 0, OpenSea.DECK + height, WHITE, WHITE));
    Exposure exposure = sea.exposure();
    double azimuth = Math.toRadians(OpenSea.SUN.azimuth());
    double[] image = new double[2];

    double lit = number(sea, exposure, 40, 40, image);
    double last = 0;
    for (double d = 4; d < 40; d += 0.05) {
      // away from the sun
      double e = -d * Math.sin(azimuth);
      double n = -d * Math.cos(azimuth);
      if (number(sea, exposure, e, n, image) < 0.7 * lit) {
        last = d;
      }
    }

    double reach = height / Math.tan(Math.toRadians(OpenSea.SUN.elevation()));
    // the edge that throws it is where the line along the azimuth leaves the box
    double edge = 3 / Math.cos(azimuth - Math.PI);
    assertThat(last).isCloseTo(reach + Math.abs(edge), within(0.15));
  }

  private static double number(OpenSea sea, Exposure exposure, double e, double n, double[] image) {
    sea.scene.sensor().toImage(sea.east + e, sea.north + n, OpenSea.DECK, image);
    return exposure.mean(new double[] {image[0], image[1]})[0];
  }

  @Test
  void inShadowThereIsTheLightOfTheSkyAlone() {
    OpenSea sea = new OpenSea();
    sea.things.add(Solid.box(
        Polygons.oblong(sea.east, sea.north, 0, 30, 6), 0, OpenSea.DECK + 20, WHITE, WHITE));
    Exposure exposure = sea.exposure();
    double azimuth = Math.toRadians(OpenSea.SUN.azimuth());
    double[] image = new double[2];
    sea.scene
        .sensor()
        .toImage(
            sea.east - 8 * Math.sin(azimuth),
            sea.north - 8 * Math.cos(azimuth),
            OpenSea.DECK,
            image);

    double[] mean = exposure.mean(new double[] {image[0], image[1]});

    Conditions c = sea.scene.conditions();
    for (int b = 0; b < Material.BANDS; b++) {
      double sky = 0.3 * c.air().sky(b) * c.air().up(b) + c.air().haze(b);
      assertThat(mean[b + 1]).isCloseTo(sky * sea.scene.scale(b), withinPercentage(4));
    }
  }

  /** A small bright plate high above the deck appears where the sensor projects it, in the recorded numbers. */
  @Test
  void aPlateIsRecordedWhereTheGeometryPutsIt() {
    OpenSea sea = new OpenSea();
    double top = OpenSea.DECK + 30;
    double[] plate = Polygons.oblong(sea.east + 5, sea.north - 8, 0.4, 2, 2);
    Surface dark = Surface.of(Material.MARK, OpenSea.flat(0.3f));
    sea.things.add(Solid.box(plate, 0, top, dark, WHITE));

    float[][] planes = sea.exposure().numbers(new Window(0, 0, SIZE, SIZE));

    double[] image = new double[2];
    sea.scene.sensor().toImage(sea.east + 5, sea.north - 8, top, image);
    double sum = 0;
    double x = 0;
    double y = 0;
    float level = planes[0][20 * SIZE + 20];
    for (int row = (int) image[1] - 5; row <= image[1] + 5; row++) {
      for (int col = (int) image[0] - 5; col <= image[0] + 5; col++) {
        double w = planes[0][row * SIZE + col] - 1.25 * level;
        if (w > 0) {
          sum += w;
          x += w * (col + 0.5);
          y += w * (row + 0.5);
        }
      }
    }
    assertThat(sum).isPositive();
    assertThat(x / sum).isCloseTo(image[0], within(0.25));
    assertThat(y / sum).isCloseTo(image[1], within(0.25));
  }

  @Test
  void aPixelIsTheSameWhicheverWindowItIsMadeIn() {
    OpenSea sea = new OpenSea();
    sea.things.add(
        Solid.box(Polygons.oblong(sea.east, sea.north, 0.7, 20, 9), 0, 14, WHITE, WHITE));
    float[][] whole = sea.exposure().numbers(new Window(64, 64, 128, 128));

    float[][] part = sea.exposure().numbers(new Window(96, 100, 40, 52));

    for (int y = 0; y < 52; y++) {
      for (int x = 0; x < 40; x++) {
        assertThat(part[0][y * 40 + x]).isEqualTo(whole[0][(y + 36) * 128 + x + 32]);
      }
    }
    for (int b = 1; b < part.length; b++) {
      assertThat(part[b][0]).isEqualTo(whole[b][9 * 32 + 8]);
    }
  }

  @Test
  void facadesTurnedToTheSensorAreSeenAndTheFarOnesAreHidden() {
    OpenSea sea = new OpenSea();
    Surface red = Surface.of(Material.WALL, OpenSea.flat(0.05f));
    sea.things.add(Solid.box(
        Polygons.oblong(sea.east, sea.north, 0, 12, 12), 0, OpenSea.DECK + 25, red, WHITE));
    Exposure exposure = sea.exposure();
    double[] image = new double[2];

    // the sensor stands in the east: half-way up the east wall is seen, half-way up the west wall
    // the roof hides
    sea.scene.sensor().toImage(sea.east + 6.001, sea.north, OpenSea.DECK + 12, image);
    double east = exposure.mean(new double[] {image[0], image[1]})[0];
    sea.scene.sensor().toImage(sea.east - 6.001, sea.north, OpenSea.DECK + 12, image);
    double west = exposure.mean(new double[] {image[0], image[1]})[0];

    assertThat(east).isLessThan(0.4 * west);
  }

  @Test
  void cloudBrightensWhatItHidesAndDarkensWhatItShades() {
    OpenSea clear = new OpenSea();
    var veil = new sharpkestrel.demo.noise.SmoothTexture(4);
    Cloud cloud = new Cloud(clear.east, clear.north, 900, 800, veil);
    OpenSea cloudy = new OpenSea(cloud);
    double[] sun = OpenSea.SUN.direction();
    double[] view = clear.scene.conditions().view();
    int hidden = 0;
    int shaded = 0;
    double[] image = new double[2];
    Exposure bright = clear.exposure();
    Exposure dim = cloudy.exposure();
    for (int k = 0; k < 400; k++) {
      double e = clear.east - 50 + 5 * (k % 20);
      double n = clear.north - 50 + 5 * (k / 20);
      double over = cloud.stops(e + 798 * view[0] / view[2], n + 798 * view[1] / view[2]);
      double before = cloud.stops(e + 798 * sun[0] / sun[2], n + 798 * sun[1] / sun[2]);
      clear.scene.sensor().toImage(e, n, OpenSea.DECK, image);
      double plain = bright.mean(image)[0];
      if (over > 0.3 && before < 0.05) {
        hidden++;
        assertThat(dim.mean(image)[0]).isGreaterThan(plain);
      } else if (over == 0 && before > 0.3) {
        shaded++;
        assertThat(dim.mean(image)[0]).isLessThan(plain);
      }
    }
    assertThat(hidden + shaded).isPositive();
  }
}
