package sharpkestrel.demo.scene;

import java.time.Instant;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Air;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Sun;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.sensor.Pushbroom;
import sharpkestrel.demo.things.Solid;
import sharpkestrel.demo.things.Things;
import sharpkestrel.raster.Extent;

/** A level deck far out at sea, 2 m above the water, to build simple things on; seen by a sensor without jitter. */
final class OpenSea {

  static final double DECK = 2;
  static final int SIZE = 256;
  static final Sun SUN = new Sun(36, 165);
  static final double OFF_NADIR = 20;
  static final double VIEW_AZIMUTH = 95;

  final Ground ground;
  final Things things = new Things();
  final double east;
  final double north;
  final Scene scene;
  final Surface deck = Surface.of(Material.MARK, flat(0.3f));

  OpenSea() {
    this(Cloud.NONE);
  }

  OpenSea(Cloud cloud) {
    Coast coast = new Coast(2);
    double[] place = deepest(coast);
    east = place[0];
    north = place[1];
    ground = new Ground(2, Extent.around(east, north, 100));
    things.add(Solid.box(Polygons.oblong(east, north, 0, 240, 240), 0, DECK, deck, deck));
    Conditions conditions = new Conditions(
        Instant.parse("2031-04-20T11:00:00Z"),
        SUN,
        new Air(SUN, OFF_NADIR, 0.08),
        OFF_NADIR,
        VIEW_AZIMUTH,
        5,
        200,
        0,
        cloud);
    Pushbroom sensor = new Pushbroom(
        new double[] {east, north, DECK},
        OFF_NADIR,
        VIEW_AZIMUTH,
        190,
        0.5,
        SIZE,
        SIZE,
        0,
        Chance.of(1, 1));
    scene = new Scene("test", sensor, conditions, 0.9, new double[Material.BANDS][2]);
  }

  static float[] flat(float reflectance) {
    float[] rho = new float[Material.BANDS];
    java.util.Arrays.fill(rho, reflectance);
    return rho;
  }

  Exposure exposure() {
    return new Exposure(scene, ground, things, 0);
  }

  private static double[] deepest(Coast coast) {
    double[] best = {0, 0};
    double least = 0;
    for (double u = -900; u < -300; u += 40) {
      for (double v = -900; v < 900; v += 40) {
        double s = coast.at(coast.east(u, v), coast.north(u, v));
        if (s < least) {
          least = s;
          best = new double[] {coast.east(u, v), coast.north(u, v)};
        }
      }
    }
    return best;
  }
}
