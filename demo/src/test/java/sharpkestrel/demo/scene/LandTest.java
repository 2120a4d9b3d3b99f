package sharpkestrel.demo.scene;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.EnumMap;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.ground.Parcel;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.noise.SmoothTexture;
import sharpkestrel.raster.Extent;

/** Textures of the land's covers, point by point. */
class LandTest {

  private static final int RED = 3;
  private static final int NIR = 5;

  private static Ground ground;
  private static Extent box;

  private final Land land =
      new Land(ground, new SmoothTexture(9), new Grain(9), 0.4, Season.LEAF_ON);

  @BeforeAll
  static void makeGround() {
    Coast coast = new Coast(3);
    box = Extent.around(coast.east(700, 0), coast.north(700, 0), 900);
    ground = new Ground(3, box);
  }

  private void cover(double e, double n) {
    GroundTile tile = ground.tiles().at(e, n);
    float[] sample = GroundTile.newSample();
    tile.sample(e, n, sample);
    double[] normal = new double[3];
    tile.normal(e, n, normal);
    double steep = Math.sqrt(1 / (normal[2] * normal[2]) - 1);
    land.at(tile, sample, e, n, tile.height(e, n), steep);
  }

  /** The largest parcel of a use. */
  private static Parcel largest(Parcel.Use use) {
    Parcel found = null;
    for (double n = box.south(); n < box.north(); n += 12) {
      for (double e = box.west(); e < box.east(); e += 12) {
        Parcel parcel = ground.parcels().at(e, n);
        if (parcel.use() == use
            && (found == null || Polygons.area(parcel.ring()) > Polygons.area(found.ring()))) {
          found = parcel;
        }
      }
    }
    assertThat(found).as(use.name()).isNotNull();
    return found;
  }

  /** Squared amplitude of a wave of some metres in red reflectance along lines in a direction through a parcel. */
  private double power(Parcel parcel, double direction, double wavelength) {
    double[] middle = Polygons.middle(parcel.ring());
    double sum = 0;
    int lines = 24;
    for (int line = 0; line < lines; line++) {
      double off = (line - lines / 2) * 0.9;
      double re = 0;
      double im = 0;
      double mean = 0;
      int count = 240;
      double[] values = new double[count];
      for (int k = 0; k < count; k++) {
        double t = (k - count / 2) * 0.1;
        cover(
            middle[0] + t * Math.cos(direction) - off * Math.sin(direction),
            middle[1] + t * Math.sin(direction) + off * Math.cos(direction));
        values[k] = land.rho[RED];
        mean += values[k] / count;
      }
      for (int k = 0; k < count; k++) {
        double phase = 2 * Math.PI * k * 0.1 / wavelength;
        re += (values[k] / mean - 1) * Math.cos(phase) / count;
        im += (values[k] / mean - 1) * Math.sin(phase) / count;
      }
      sum += (re * re + im * im) / lines;
    }
    return sum;
  }

  private void furrowed(Parcel.Use use, double spacing) {
    Parcel parcel = largest(use);
    double across = parcel.rows() + Math.PI / 2;
    double peak = power(parcel, across, spacing);

    assertThat(peak).isGreaterThan(4 * power(parcel, across, spacing * 0.7));
    assertThat(peak).isGreaterThan(4 * power(parcel, across, spacing * 1.4));
    assertThat(peak).as("along the rows").isGreaterThan(4 * power(parcel, parcel.rows(), spacing));
  }

  @Test
  void ploughedLandHasFurrowsOfItsPloughAcrossTheRows() {
    furrowed(Parcel.Use.PLOUGHED, 1.9);
  }

  @Test
  void stubbleHasTheRowsOfItsReaper() {
    furrowed(Parcel.Use.STUBBLE, 2.8);
  }

  @Test
  void rootsStandInDrills() {
    furrowed(Parcel.Use.ROOTS, 1.5);
  }

  @Test
  void furrowsTurnTheGroundToAndFroAcrossTheRows() {
    Parcel parcel = largest(Parcel.Use.PLOUGHED);
    double[] middle = Polygons.middle(parcel.ring());
    double along = 0;
    double across = 0;
    for (int k = 0; k < 400; k++) {
      double t = (k - 200) * 0.1;
      cover(middle[0] - t * Math.sin(parcel.rows()), middle[1] + t * Math.cos(parcel.rows()));
      double cos = Math.cos(parcel.rows());
      double sin = Math.sin(parcel.rows());
      along += Math.pow(land.tiltEast * cos + land.tiltNorth * sin, 2);
      across += Math.pow(-land.tiltEast * sin + land.tiltNorth * cos, 2);
    }
    // a sine of amplitude 0.34 has a mean square of 0.058
    assertThat(across / 400).isCloseTo(0.058, within(0.012));
    assertThat(along).isLessThan(across / 10);
  }

  @Test
  void greenFieldsAreBrightInTheInfraredAndPloughedOnesAreNot() {
    Map<Parcel.Use, Double> ratio = new EnumMap<>(Parcel.Use.class);
    for (Parcel.Use use : new Parcel.Use[] {Parcel.Use.PASTURE, Parcel.Use.PLOUGHED}) {
      double[] middle = Polygons.middle(largest(use).ring());
      double red = 0;
      double nir = 0;
      for (int k = 0; k < 400; k++) {
        cover(middle[0] + k % 20, middle[1] + k / 20);
        red += land.rho[RED];
        nir += land.rho[NIR];
      }
      ratio.put(use, nir / red);
    }
    assertThat(ratio.get(Parcel.Use.PASTURE)).isGreaterThan(2.5);
    assertThat(ratio.get(Parcel.Use.PLOUGHED)).isLessThan(2);
  }

  @Test
  void fieldsOfOneUseDifferAsWholes() {
    double[] sums = new double[3];
    Map<Parcel, Boolean> seen = new java.util.IdentityHashMap<>();
    for (double n = box.south(); n < box.north(); n += 40) {
      for (double e = box.west(); e < box.east(); e += 40) {
        Parcel parcel = ground.parcels().at(e, n);
        if (parcel.use() == Parcel.Use.PASTURE && seen.put(parcel, true) == null) {
          double[] middle = Polygons.middle(parcel.ring());
          double mean = 0;
          for (int k = 0; k < 100; k++) {
            cover(middle[0] + k % 10, middle[1] + k / 10);
            mean += land.rho[2] / 100;
          }
          sums[0]++;
          sums[1] += mean;
          sums[2] += mean * mean;
        }
      }
    }
    double mean = sums[1] / sums[0];
    double spread = Math.sqrt(sums[2] / sums[0] - mean * mean) / mean;

    assertThat(sums[0]).isGreaterThan(20);
    assertThat(spread).isBetween(0.08, 0.5);
  }

  @Test
  void aMainRoadHasDashesAlongItsMiddleAndIsWetInPlaces() {
    double[] painted = new double[2];
    int wet = 0;
    int seen = 0;
    for (Road road : ground.roads().all()) {
      for (int k = 0; k + 1 < road.points() && road.kind() == Road.Kind.MAIN; k++) {
        for (double t = 0.05; t < 1; t += 0.1) {
          double e = road.e(k) + t * (road.e(k + 1) - road.e(k));
          double n = road.n(k) + t * (road.n(k + 1) - road.n(k));
          if (!box.holds(e, n) || ground.coast().at(e, n) < 20) {
            continue;
          }
          cover(e, n);
          painted[0]++;
          painted[1] += land.rho[RED] > 0.25 ? 1 : 0;
          // beside the middle, between the wheels
          cover(e + 0.7, n + 0.7);
          seen++;
          wet += land.material == Material.WET_ASPHALT ? 1 : 0;
        }
      }
    }
    assertThat(painted[0]).isGreaterThan(200);
    // dashes are 4.2 m of every 8
    assertThat(painted[1] / painted[0]).isCloseTo(4.2 / 8, within(0.12));
    assertThat((double) wet / seen).isBetween(0.05, 0.9);
  }

  @Test
  void oneMaterialHasOtherBrightnessAtEachScale() {
    Parcel parcel = largest(Parcel.Use.MEADOW);
    double[] middle = Polygons.middle(parcel.ring());
    double[] spread = new double[3];
    double[] side = {0.5, 4, 16};
    for (int s = 0; s < 3; s++) {
      double squares = 0;
      for (int k = 0; k < 300; k++) {
        double e = middle[0] + (k % 20 - 10) * 1.7;
        double n = middle[1] + (k / 20 - 7) * 1.7;
        cover(e, n);
        double here = land.rho[RED];
        cover(e + side[s], n);
        squares += Math.pow(land.rho[RED] / here - 1, 2) / 300;
      }
      spread[s] = Math.sqrt(squares);
    }
    // differences keep growing with the distance: no single scale holds all of the variation
    assertThat(spread[0]).isGreaterThan(0.01);
    assertThat(spread[1]).isGreaterThan(spread[0] * 1.1);
    assertThat(spread[2]).isGreaterThan(spread[1]);
  }
}
