package sharpkestrel.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** Buildings and what stands beside them, on ground that is level, dry, off the road and free. */
final class Settlement {

  private final Terrain terrain;
  private final double east;
  private final double north;
  private final double half;
  private final List<Block> blocks = new ArrayList<>();
  private int buildings;

  /**
   * @param half half the side of the ground about its middle, metres
   */
  Settlement(Terrain terrain, double east, double north, double half) {
    this.terrain = terrain;
    this.east = east;
    this.north = north;
    this.half = half;
  }

  List<Block> blocks() {
    return blocks;
  }

  int buildings() {
    return buildings;
  }

  /** Hamlets and gaps between them along a road, its points as east and north in turn. */
  void along(double[] road, Random random) {
    boolean hamlet = random.nextDouble() < 0.7;
    for (int k = 0; k + 3 < road.length; k += 2) {
      if (random.nextDouble() < 0.04) {
        hamlet = !hamlet;
      }
      double along = Math.toDegrees(Math.atan2(road[k + 3] - road[k + 1], road[k + 2] - road[k]));
      double chance = hamlet ? 0.7 : 0.18;
      for (int side = -1; side <= 1; side += 2) {
        if (random.nextDouble() < chance) {
          double off = 11 + 22 * random.nextDouble();
          double a = Math.toRadians(along + 90 * side);
          croft(
              road[k] + off * Math.cos(a) - east,
              road[k + 1] + off * Math.sin(a) - north,
              along + 12 * random.nextGaussian() + (random.nextInt(3) == 0 ? 90 : 0),
              random);
        }
      }
    }
  }

  /** A building at an offset from the middle, sometimes with a wing, a yard or a polytunnel beside it. */
  void croft(double x, double y, double angle, Random random) {
    double e = east + x;
    double n = north + y;
    double kind = random.nextDouble();
    Material roof =
        kind < 0.40 ? Material.METAL_ROOF : kind < 0.72 ? Material.SLATE_ROOF : Material.TURF_ROOF;
    boolean shed = random.nextDouble() < 0.3;
    double length = shed ? 5 + 5 * random.nextDouble() : 9 + 13 * random.nextDouble();
    double width = shed ? 4 + 2 * random.nextDouble() : 6 + 4.5 * random.nextDouble();
    double eaves = shed ? 2.2 + 0.8 * random.nextDouble() : 2.8 + 3.5 * random.nextDouble();
    boolean flat = random.nextDouble() < 0.22;
    double pitch = flat
        ? 0
        : roof == Material.METAL_ROOF
            ? 0.08 + 0.22 * random.nextDouble()
            : 0.4 + 0.4 * random.nextDouble();
    if (!free(e, n, Math.hypot(length, width) / 2 + 3)) {
      return;
    }
    float[] tone = tone(roof, random);
    int id = buildings++;
    addBlock(e, n, angle, length, width, eaves, pitch * width / 2, roof, tone, id);
    double radians = Math.toRadians(angle);
    if (!shed && random.nextDouble() < 0.25) {
      double wing = width * (0.55 + 0.3 * random.nextDouble());
      double deep = 3.5 + 4 * random.nextDouble();
      double shift = (random.nextDouble() - 0.5) * (length - wing);
      double u = shift;
      double v = width / 2 + deep / 2 - 0.6;
      addBlock(
          e + u * Math.cos(radians) - v * Math.sin(radians),
          n + u * Math.sin(radians) + v * Math.cos(radians),
          angle + 90,
          deep + 1.2,
          wing,
          eaves * 0.85,
          pitch * wing / 2 * 0.8,
          roof,
          tone,
          id);
    }
    double beside = random.nextDouble();
    if (beside < 0.38) {
      boolean film = beside < 0.09;
      double l = film ? 10 + 10 * random.nextDouble() : 6 + 12 * random.nextDouble();
      double w = film ? 5 + 2 * random.nextDouble() : 5 + 7 * random.nextDouble();
      double u = (random.nextDouble() - 0.5) * 8;
      double v = -(width / 2 + w / 2 + 0.8 + 2 * random.nextDouble());
      double be = e + u * Math.cos(radians) - v * Math.sin(radians);
      double bn = n + u * Math.sin(radians) + v * Math.cos(radians);
      if (terrain.shore(be, bn) > 0.008 && freeOf(be, bn, Math.hypot(l, w) / 2, id)) {
        Material cover = film ? Material.FILM : Material.CONCRETE;
        addBlock(
            be, bn, angle, l, w, film ? 1.4 : 0, film ? 1.3 : 0, cover, tone(cover, random), -1);
      }
    }
  }

  private void addBlock(
      double e,
      double n,
      double angle,
      double length,
      double width,
      double eaves,
      double ridge,
      Material roof,
      float[] tone,
      int id) {
    blocks.add(
        Block.of(e, n, angle, length, width, terrain.height(e, n), eaves, ridge, roof, tone, id));
  }

  private boolean free(double e, double n, double reach) {
    if (Math.abs(e - east) > half - 25
        || Math.abs(n - north) > half - 25
        || terrain.shore(e, n) < 0.012
        || terrain.road(e, n) < reach + 1) {
      return false;
    }
    double slope = Math.abs(terrain.height(e + 8, n) - terrain.height(e - 8, n))
        + Math.abs(terrain.height(e, n + 8) - terrain.height(e, n - 8));
    return slope < 5 && freeOf(e, n, reach, Integer.MIN_VALUE);
  }

  private boolean freeOf(double e, double n, double reach, int own) {
    for (Block block : blocks) {
      if (block.building() != own
          && Math.hypot(block.east() - e, block.north() - n) < block.reach() + reach) {
        return false;
      }
    }
    return terrain.road(e, n) > reach * 0.7;
  }

  /** Age, wetness and paint: an overall factor and a slope across the bands. */
  private static float[] tone(Material material, Random random) {
    double overall;
    double slope;
    switch (material) {
      case METAL_ROOF -> {
        // new sheets are bright, weathered zinc is grey; a few have a warm cast
        overall = random.nextDouble() < 0.35
            ? 0.52 + 0.2 * random.nextDouble()
            : 0.75 + 0.35 * random.nextDouble();
        slope = 0.018 * random.nextGaussian();
      }
      case SLATE_ROOF -> {
        overall = 0.75 + 0.5 * random.nextDouble();
        slope = 0.03 * random.nextGaussian();
      }
      case CONCRETE -> {
        overall = 0.6 + 0.55 * random.nextDouble();
        slope = 0.03 * random.nextGaussian();
      }
      default -> {
        overall = 0.8 + 0.4 * random.nextDouble();
        slope = 0.04 * random.nextGaussian();
      }
    }
    float[] tone = new float[Material.BANDS];
    for (int b = 0; b < tone.length; b++) {
      tone[b] = (float) (overall * (1 + slope * (b - 2.5)));
    }
    return tone;
  }
}
