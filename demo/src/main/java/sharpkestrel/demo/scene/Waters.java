package sharpkestrel.demo.scene;

import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.light.Glint;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.SmoothTexture;
import sharpkestrel.demo.things.Pen;
import sharpkestrel.demo.things.Wake;

/**
 * The sea and the lakes: light from the water and through it from a shallow bed, the sky and the sun mirrored by waves
 * large enough to be seen and by those that are not, foam where waves break.
 */
final class Waters {

  /** Light lost on a metre of way in the water, by band. */
  private static final double[] ATTENUATION = {0.16, 0.11, 0.13, 0.46, 1.3, 2.9};

  private static final double SKY_MIRRORED = 0.024;
  /** From so far out, metres, the bed does not show and no rock is awash. */
  private static final double DEEP = 46;

  private static final float[] OPEN_WATER = Material.WATER.spectrum();

  private final SmoothTexture smooth;
  private final Conditions conditions;
  private final Glint glint;
  private final double cos;
  private final double sin;
  private final double windy;

  /** What was met last: reflectance, and light that was mirrored, in the tracer's units. */
  final float[] rho = new float[Material.BANDS];

  double mirrored;
  double skyShare;
  Material material;

  Waters(SmoothTexture smooth, Conditions conditions) {
    this.smooth = smooth;
    this.conditions = conditions;
    glint = new Glint(conditions.sun().direction(), conditions.view(), conditions.wind());
    double course = Math.toRadians(conditions.windFrom());
    cos = Math.sin(course);
    sin = Math.cos(course);
    windy = Math.min(1, conditions.wind() / 9);
  }

  /**
   * Light from a point of the sea.
   *
   * @param shore metres to the shore, below 0
   */
  void sea(SceneTile tile, double e, double n, double shore, double front) {
    double out = -shore;
    double u = e * cos + n * sin;
    double v = -e * sin + n * cos;
    double shelter = (1 - front) * Math.min(1, out / 60);
    double swell = shelter * (smooth.at(u / 23, v / 70) + 0.5 * smooth.at(u / 11 + 3, v / 29));
    double chop = smooth.at(u / 2.6, v / 6.5) + 0.7 * smooth.at(u / 1.1 + 9, v / 2.4);
    double gusts = 0.6 + 0.8 * smooth.at(e / 190, n / 140 + 4) + 0.3 * smooth.at(e / 45, n / 60);
    double rough = windy * Math.max(0.15, gusts) * (0.35 + 0.65 * shelter);
    if (out > DEEP) {
      material = Material.WATER;
      System.arraycopy(OPEN_WATER, 0, rho, 0, rho.length);
    } else {
      double shoal = 0.9 * Math.max(0, smooth.at(e / 31, n / 31));
      bed(e, n, out, 0.34 * out + shoal * Math.min(1, out / 6), 1 - front);
    }
    double slope = 0.035 * swell + 0.075 * rough * chop;
    mirrored = glint.at(slope * cos * (1 + rough), slope * sin * (1 + rough)) * (0.5 + rough);
    skyShare = SKY_MIRRORED * (1 + 2.4 * slope * 4 + 0.5 * rough);
    double foam = surf(e, n, out, front, u, v);
    foam = Math.max(foam, whitecap(u, v, rough * shelter));
    for (Wake wake : tile.wakes) {
      double white = wake.foam(e, n) * (0.62 + 0.5 * smooth.at(e / 1.3, n / 1.3));
      foam = Math.max(foam, white);
    }
    if (foam > 0) {
      foam = Math.min(1, foam);
      material = foam > 0.4 ? Material.SURF : material;
      for (int b = 0; b < Material.BANDS; b++) {
        rho[b] += (float) ((Material.SURF.reflectance(b) - rho[b]) * foam);
      }
    }
    for (Pen pen : tile.pens) {
      pen(pen, e, n);
    }
  }

  /** The water over its bed of sand, rock and weed; where it is shallowest the rocks are awash. */
  private void bed(double e, double n, double out, double depth, double wild) {
    double stones = smooth.octaves(e / 9, n / 9, 4) + 0.35 * smooth.at(e / 40, n / 40);
    double awash = wild * (stones - 0.16 - out / 34);
    material = Material.WATER;
    Material bottom = stones > 0.02 ? Material.WEED : Material.SAND;
    if (awash > 0) {
      boolean wet = smooth.at(e / 3.1, n / 3.1) > 0.1;
      Material rock = wet ? Material.WEED : Material.ROCK;
      material = rock;
      double tone = 0.55 + 0.5 * awash;
      for (int b = 0; b < Material.BANDS; b++) {
        rho[b] = (float) (rock.reflectance(b) * tone);
      }
      return;
    }
    for (int b = 0; b < Material.BANDS; b++) {
      double through = Math.exp(-2.1 * ATTENUATION[b] * depth);
      float water = Material.WATER.reflectance(b);
      rho[b] = (float) (water + (0.75 * bottom.reflectance(b) - water) * through);
    }
  }

  /** Breakers along open shores: bands of foam, torn by noise. */
  private double surf(double e, double n, double out, double front, double u, double v) {
    if (out > 26 || front > 0.8) {
      return 0;
    }
    double torn = smooth.octaves(e / 6, n / 6, 4);
    double exposed = 0.5 + 0.5 * smooth.at(e / 260, n / 260) + 0.3 * windy - front;
    double bands = Math.sin(out / 2.6 + 2.2 * smooth.at(e / 17, n / 17));
    double white = exposed * (1.25 - out / (9 + 13 * windy * Math.max(0, exposed)))
        + 0.35 * bands
        + 1.1 * torn
        - 0.75;
    return Math.max(0, Math.min(1, 2.2 * white));
  }

  private double whitecap(double u, double v, double rough) {
    double crest = smooth.at(u / 5.5 + 31, v / 13) + 0.8 * smooth.at(u / 1.7, v / 3.4 + 8);
    double limit = 1.75 - 0.75 * rough;
    return crest < limit ? 0 : Math.min(0.8, 5 * (crest - limit));
  }

  private void pen(Pen pen, double e, double n) {
    double r = Math.hypot(e - pen.east(), n - pen.north());
    double walk = Math.abs(r - pen.radius());
    if (walk < 0.55) {
      material = Material.PONTOON;
      System.arraycopy(Material.PONTOON.spectrum(), 0, rho, 0, Material.BANDS);
      mirrored = 0;
    } else if (r < pen.radius()) {
      material = Material.NET;
      double splash = smooth.at(e / 1.4, n / 1.4) > 0.72 ? 0.12 : 0;
      for (int b = 0; b < Material.BANDS; b++) {
        rho[b] = (float) (rho[b] * 0.62 + splash + 0.004);
      }
      mirrored *= 0.3;
    }
  }

  /** Light from a lake or a burn. */
  void fresh(GroundTile tile, double e, double n, double depth) {
    material = Material.LAKE_WATER;
    double chop = windy * (smooth.at(e / 2.2, n / 3.4) + 0.6 * smooth.at(e / 1.0, n / 1.5));
    double slope = 0.03 * chop;
    mirrored = glint.at(slope * cos, slope * sin) * 0.6;
    skyShare = SKY_MIRRORED * (1 + 4 * slope);
    for (int b = 0; b < Material.BANDS; b++) {
      double through = Math.exp(-5.5 * ATTENUATION[b] * depth);
      float water = Material.LAKE_WATER.reflectance(b);
      rho[b] = (float) (water + (0.8 * Material.PEAT.reflectance(b) - water) * through);
    }
  }
}
