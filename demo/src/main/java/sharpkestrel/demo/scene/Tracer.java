package sharpkestrel.demo.scene;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.SmoothTexture;
import sharpkestrel.demo.things.Crown;
import sharpkestrel.demo.things.Patch;
import sharpkestrel.demo.things.Solid;

/**
 * Follows one ray at a time to what it meets and finds the light that comes back along it; for use by one thread. A
 * ray meets crown, roof, wall, patch, ground or water; the sun reaches the point unless hill, thing or cloud stands
 * between; the sky lights all of it.
 */
final class Tracer {

  private static final double FEET = 0.02;
  private static final double SKIN = 0.04;

  private final Ground ground;
  private final SceneTiles tiles;
  private final Conditions conditions;
  private final Land land;
  private final Waters waters;
  private final Faces faces;
  private final Snow snow;
  private final boolean bare;
  private final SmoothTexture smooth;
  private final Grain grain;
  private final double[] sun;
  private final double[] sunRay;
  private final double[] view;
  private final double[] down = new double[Material.BANDS];
  private final double[] sky = new double[Material.BANDS];
  private final double[] up = new double[Material.BANDS];
  private final double[] haze = new double[Material.BANDS];

  private SceneTile tile;
  private double guess;
  private final double[] shadow = new double[4];
  private final int[] face = new int[1];
  private final double[] normal = new double[3];
  private final float[] sample = GroundTile.newSample();

  /** Light along the ray by band: reflectance of a white level surface times the sine of the sun's elevation. */
  final float[] signal = new float[Material.BANDS];

  /** Share of the sun's light that reached what was met; 0 for what is turned away from it. */
  double lit;

  /** What was met, and where. */
  Material material;

  double east;
  double north;
  double height;

  Tracer(SceneTiles tiles, Conditions conditions) {
    this.tiles = tiles;
    this.conditions = conditions;
    ground = tiles.ground();
    smooth = tiles.smooth();
    grain = tiles.grain();
    land = new Land(ground, smooth, grain, conditions.wetness(), conditions.season());
    waters = new Waters(smooth, conditions);
    faces = new Faces(smooth, grain, conditions.season());
    snow = new Snow(smooth, conditions);
    bare = conditions.season().isBare();
    sun = conditions.sun().direction();
    sunRay = new double[] {sun[0] / sun[2], sun[1] / sun[2]};
    view = conditions.view();
    for (int b = 0; b < Material.BANDS; b++) {
      down[b] = conditions.air().down(b);
      sky[b] = conditions.air().sky(b);
      up[b] = conditions.air().up(b);
      haze[b] = conditions.air().haze(b);
    }
  }

  /** Begins a row of rays that follow each other. */
  void begin() {
    guess = 20;
  }

  /**
   * Follows a ray.
   *
   * @param ray east and north at height 0 above the geoid, and their change for a metre of height
   */
  void trace(double[] ray) {
    double h = meetGround(ray);
    double e = ray[0] + h * ray[2];
    double n = ray[1] + h * ray[3];
    double top = h - FEET;
    Solid solid = null;
    int solidFace = 0;
    for (Solid candidate : tile.seen(e, n)) {
      double at = candidate.meet(ray, face);
      if (at > top) {
        top = at;
        solid = candidate;
        solidFace = face[0];
      }
    }
    Crown crown = null;
    for (Crown candidate : tile.seenCrowns(e, n)) {
      double at = candidate.meet(ray);
      if (at > top && (!bare || isTwig(candidate, ray, at))) {
        top = at;
        crown = candidate;
      }
    }
    if (crown != null) {
      crown(ray, crown, top, h);
    } else if (solid != null) {
      east = ray[0] + top * ray[2];
      north = ray[1] + top * ray[3];
      height = top;
      solid.normal(solidFace, normal);
      faces.solid(solid, solidFace, east, north, top);
      if (snow.lies() && !solid.isWall(solidFace)) {
        snow.cover(east, north, normal, 0.5, faces.rho);
      }
      material = solid.surface(solidFace).material();
      light(faces.rho, 1, h, solid, null);
    } else {
      east = e;
      north = n;
      height = h;
      surface(e, n, h);
    }
    veil(ray);
  }

  /** Whether a ray that meets a crown without leaves meets a twig; evergreens have leaves. */
  private boolean isTwig(Crown crown, double[] ray, double at) {
    if (crown.material() != Material.BROADLEAF) {
      return true;
    }
    double e = ray[0] + at * ray[2];
    double n = ray[1] + at * ray[3];
    return grain.at(e * 1.7, n * 1.7, 0.3) + 0.5 * smooth.at(e / 0.7, n / 0.7) > 0.15;
  }

  /** Fixed-point iteration: ground slopes less than the ray is steep, so each step comes nearer. */
  private double meetGround(double[] ray) {
    double h = guess;
    for (int i = 0; i < 24; i++) {
      double e = ray[0] + h * ray[2];
      double n = ray[1] + h * ray[3];
      if (tile == null || !tile.ground.holds(e, n)) {
        tile = tiles.at(e, n);
      }
      double found = tile.ground.height(e, n);
      double change = found - h;
      h = found;
      if (Math.abs(change) < 0.004) {
        break;
      }
    }
    guess = h;
    double e = ray[0] + h * ray[2];
    double n = ray[1] + h * ray[3];
    if (!tile.ground.holds(e, n)) {
      tile = tiles.at(e, n);
    }
    return h;
  }

  private void crown(double[] ray, Crown crown, double top, double h) {
    east = ray[0] + top * ray[2];
    north = ray[1] + top * ray[3];
    height = top;
    crown.normal(east, north, top, normal);
    material = crown.material();
    double leaf = 1
        + material.grainy * grain.at(east, north + top, 0.35)
        + 0.3 * smooth.at(east / 0.8, north / 0.8 + top);
    // leaves let light through: no side of a crown is as dark as a wall
    float[] rho = faces.rho;
    float[] leaves = conditions.season().spectrum(material);
    for (int b = 0; b < Material.BANDS; b++) {
      rho[b] = (float) (leaves[b] * crown.tone() * Math.max(0.2, leaf));
    }
    light(rho, 1, h, null, crown);
  }

  private void surface(double e, double n, double h) {
    GroundTile g = tile.ground;
    g.sample(e, n, sample);
    float shore = GroundTile.Field.SHORE.of(sample);
    Patch patch = patchAt(e, n);
    if (patch != null && shore > 0) {
      g.normal(e, n, normal);
      faces.patch(patch, e, n);
      if (snow.lies()) {
        snow.cover(e, n, normal, 0.55, faces.rho);
      }
      material = patch.surface.material();
      light(faces.rho, 1, h, null, null);
      return;
    }
    float lake = GroundTile.Field.LAKE.of(sample);
    float burn = GroundTile.Field.BURN.of(sample);
    if (shore <= 0 && !ground.landform().isSea()) {
      waters.fresh(g, e, n, Math.min(3, 0.1 - 0.2 * shore));
      water(h);
    } else if (shore <= 0) {
      waters.sea(tile, e, n, shore, ground.landform().front(e, n));
      water(h);
    } else if (lake <= 1 || burn < -0.1 && shore > 1) {
      waters.fresh(g, e, n, lake <= 1 ? 0.1 + 7 * (1 - lake) : 0.15);
      water(h);
    } else {
      g.normal(e, n, normal);
      double steep = Math.sqrt(1 / (normal[2] * normal[2]) - 1);
      land.at(g, sample, e, n, h, steep);
      if (land.tiltEast != 0 || land.tiltNorth != 0) {
        normal[0] -= land.tiltEast * normal[2];
        normal[1] -= land.tiltNorth * normal[2];
        double l = Math.sqrt(normal[0] * normal[0] + normal[1] * normal[1] + normal[2] * normal[2]);
        normal[0] /= l;
        normal[1] /= l;
        normal[2] /= l;
      }
      material = land.material;
      if (snow.lies()) {
        boolean road = GroundTile.Field.ROAD.of(sample) < 0;
        if (snow.cover(e, n, normal, road ? 0.9 : 0, land.rho) > 0.5) {
          material = Material.SNOW;
        }
      }
      light(land.rho, anisotropy(material), h, null, null);
    }
  }

  private Patch patchAt(double e, double n) {
    Patch found = null;
    for (Patch patch : tile.patches(e, n)) {
      double inside = patch.inside(e, n);
      if (inside > 0
          && (patch.ragged == 0
              || inside > patch.ragged * (0.5 + 0.5 * smooth.octaves(e / 2.2, n / 2.2, 3)))) {
        found = patch;
      }
    }
    return found;
  }

  /** Standing plants look brighter with the sun behind the sensor: half of a cosine lobe about that direction. */
  private double anisotropy(Material of) {
    boolean plants = of.cover >= 5 && of.cover <= 9;
    if (!plants) {
      return 1;
    }
    double phase = sun[0] * view[0] + sun[1] * view[1] + sun[2] * view[2];
    return 0.82 + 0.3 * phase * phase;
  }

  private void water(double h) {
    normal[0] = 0;
    normal[1] = 0;
    normal[2] = 1;
    material = waters.material;
    lit = sunlit(h, null, null);
    for (int b = 0; b < Material.BANDS; b++) {
      double through = waters.rho[b] * (lit * sun[2] * down[b] + sky[b]);
      double mirrored = waters.mirrored * lit * down[b] + waters.skyShare * sky[b] * 1.6;
      signal[b] = (float) ((through + mirrored) * up[b] + haze[b]);
    }
  }

  private void light(float[] rho, double factor, double h, Solid ownSolid, Crown ownCrown) {
    double cosine = normal[0] * sun[0] + normal[1] * sun[1] + normal[2] * sun[2];
    if (ownCrown != null) {
      cosine = 0.25 * sun[2] + 0.75 * Math.max(0, cosine);
    }
    lit = cosine > 0 ? sunlit(h, ownSolid, ownCrown) : 0;
    double direct = lit * Math.max(0, cosine);
    double open = 0.5 + 0.5 * normal[2];
    if (lit < 1 && ownSolid == null && ownCrown == null) {
      // a point in the shadow of something sees less of the sky
      open *= 0.82 + 0.18 * lit;
    }
    for (int b = 0; b < Material.BANDS; b++) {
      double light = direct * down[b] + open * sky[b];
      signal[b] = (float) (Math.max(0, rho[b]) * factor * light * up[b] + haze[b]);
    }
  }

  /** Share of the sun that reaches the point met. */
  private double sunlit(double h, Solid ownSolid, Crown ownCrown) {
    double share = tile.pastHills(east, north, height - h);
    if (share <= 0) {
      return 0;
    }
    shadow[2] = sunRay[0];
    shadow[3] = sunRay[1];
    shadow[0] = east - height * sunRay[0];
    shadow[1] = north - height * sunRay[1];
    for (Solid other : tile.shading(east, north)) {
      if (other != ownSolid && other.top > height && other.meet(shadow, face) > height + SKIN) {
        return 0;
      }
    }
    for (Crown other : tile.shadingCrowns(east, north)) {
      if (other != ownCrown && other.top() > height && other.meet(shadow) > height + SKIN) {
        // some light finds its way through
        share *= bare && other.material() == Material.BROADLEAF ? 0.6 : 0.12;
      }
    }
    Cloud cloud = conditions.cloud();
    double over = cloud.height() - height;
    return share * (1 - cloud.stops(east + over * sunRay[0], north + over * sunRay[1]));
  }

  /** Cloud between the point and the sensor. */
  private void veil(double[] ray) {
    Cloud cloud = conditions.cloud();
    double stopped =
        cloud.stops(ray[0] + cloud.height() * ray[2], ray[1] + cloud.height() * ray[3]);
    if (stopped > 0) {
      for (int b = 0; b < Material.BANDS; b++) {
        double white = 0.82 * sun[2] * (0.9 * down[b] + 0.1);
        signal[b] += (float) ((white - signal[b]) * stopped);
      }
    }
  }
}
