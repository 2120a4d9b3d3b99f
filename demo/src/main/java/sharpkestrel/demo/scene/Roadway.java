package sharpkestrel.demo.scene;

import static sharpkestrel.demo.ground.GroundTile.Field.ACROSS;
import static sharpkestrel.demo.ground.GroundTile.Field.ROAD;

import sharpkestrel.demo.ground.Cover;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.SmoothTexture;

/** Roads as they are seen: asphalt with its age and its lines, stone, earth, rails. */
final class Roadway {

  private final SmoothTexture smooth;
  private final Grain grain;
  private final double wetness;
  private final Cover cover;

  Roadway(Ground ground, SmoothTexture smooth, Grain grain, double wetness) {
    this.smooth = smooth;
    this.grain = grain;
    this.wetness = wetness;
    cover = ground.cover().orElse(null);
  }

  /** How far a road frays, metres. */
  double edge(Road.Kind kind, double e, double n) {
    double fray = kind == Road.Kind.TRACK ? 0.5 : kind == Road.Kind.MINOR ? 0.25 : 0.08;
    return fray * smooth.at(e / 1.7, n / 1.7);
  }

  /**
   * Lays a road.
   *
   * @param sample of the tile's fields there
   */
  void lay(Laid laid, GroundTile tile, float[] sample, Road.Kind kind, double e, double n) {
    float beyond = ROAD.of(sample);
    // between nodes a distance never falls to nought, the signed one does; it means nothing where
    // roads meet
    double distance = kind.half + beyond;
    double middle = distance < 0.7 ? Math.abs(ACROSS.of(sample)) : distance;
    double fine = grain.at(e, n, 0.4);
    double along = tile.alongRoad(e, n);
    if (kind == Road.Kind.TRACK) {
      laid.set(Material.GRAVEL);
      laid.mix(Material.MEADOW, middle < 0.45 ? 0.75 : 0.12 + 0.2 * smooth.at(e / 4, n / 4));
      laid.scale(0.82 + 0.08 * fine + 0.16 * smooth.at(e / 9, n / 9));
      return;
    }
    if (kind == Road.Kind.DIRT) {
      laid.set(Material.DUST);
      laid.mix(Material.GRAVEL, 0.35 + smooth.octaves(e / 9, n / 9, 3));
      laid.scale(0.92
          + 0.07 * fine
          + 0.16 * smooth.at(e / 14, n / 14)
          + (Math.abs(middle - 0.9) < 0.3 ? 0.08 : 0));
      return;
    }
    if (kind == Road.Kind.RAIL) {
      rails(laid, middle, along, fine);
      return;
    }
    Material paved = cover == null ? null : cover.roads().get(kind);
    if (paved != null) {
      laid.set(paved);
      laid.scale(1
          + 0.12 * smooth.at(Math.floor(along / 60) * 7.3, 2)
          + 0.07 * fine
          + 0.1 * smooth.at(e / 5, n / 5));
      return;
    }
    laid.set(Material.ASPHALT);
    double wet = Math.min(1, Math.max(0, wetness + 0.75 * smooth.octaves(e / 38, n / 38, 3)));
    laid.mix(Material.WET_ASPHALT, wet);
    double age = smooth.at(Math.floor(along / 90) * 7.3 + 0.5, kind.ordinal() * 3.1);
    laid.scale(1
        + 0.22 * age
        + 0.05 * fine
        + 0.07 * smooth.at(e / 5, n / 5)
        + (Math.abs(middle - kind.half * 0.5) < 0.35 ? 0.07 : 0));
    if (kind == Road.Kind.AVENUE) {
      avenue(laid, middle, beyond, along);
    } else if (kind == Road.Kind.MAIN) {
      boolean dash = along - Math.floor(along / 8) * 8 < 4.2;
      if (middle < 0.11 && dash || Math.abs(beyond + 0.3) < 0.07) {
        laid.mix(Material.PAINT_LINE, 0.8);
      }
    }
  }

  /** A kerb in the middle, dashes between the lanes, lines along the edges. */
  private static void avenue(Laid laid, double middle, double beyond, double along) {
    boolean dash = along - Math.floor(along / 9) * 9 < 3;
    if (middle < 0.5) {
      laid.set(Material.CONCRETE);
    } else if (Math.abs(middle - 3.5) < 0.09 && dash || Math.abs(beyond + 0.35) < 0.09) {
      laid.mix(Material.PAINT_LINE, 0.85);
    }
  }

  private static void rails(Laid laid, double middle, double along, double fine) {
    laid.set(Material.BALLAST);
    boolean sleeper = along - Math.floor(along / 0.65) * 0.65 < 0.26;
    if (middle < 1.25 && sleeper) {
      laid.mix(Material.CONCRETE, 0.5);
    }
    if (Math.abs(middle - 0.75) < 0.07) {
      laid.mix(Material.STEEL, 0.8);
    }
    laid.scale(1 + 0.1 * fine);
  }
}
