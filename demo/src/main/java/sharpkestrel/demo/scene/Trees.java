package sharpkestrel.demo.scene;

import static sharpkestrel.demo.ground.GroundTile.Field.BROAD;
import static sharpkestrel.demo.ground.GroundTile.Field.BURN;
import static sharpkestrel.demo.ground.GroundTile.Field.LAKE;
import static sharpkestrel.demo.ground.GroundTile.Field.QUARRY;
import static sharpkestrel.demo.ground.GroundTile.Field.ROAD;
import static sharpkestrel.demo.ground.GroundTile.Field.SHORE;

import java.util.List;
import sharpkestrel.demo.ground.Cover;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.ground.Parcel;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.Noise;
import sharpkestrel.demo.things.Crown;
import sharpkestrel.demo.things.Things;
import sharpkestrel.raster.Extent;

/** Single crowns on a jittered lattice over the whole plane, where the land bears trees; drawn afresh for any box. */
final class Trees {

  private static final double SPACING = 3.3;
  private static final double HIGHEST = 170;

  private final Ground ground;
  private final Things things;
  private final Noise chance;
  private final boolean woods;

  Trees(Ground ground, Things things) {
    this.ground = ground;
    this.things = things;
    woods = ground.cover().map(Cover::woods).orElse(true);
    chance = new Noise(ground.seed() * 31 + 25);
  }

  /** Adds the crowns whose stems stand in the box. */
  void within(Extent box, List<Crown> crowns) {
    GroundTile tile = null;
    float[] sample = GroundTile.newSample();
    for (long j = (long) Math.floor(box.south() / SPACING); j * SPACING < box.north(); j++) {
      for (long i = (long) Math.floor(box.west() / SPACING); i * SPACING < box.east(); i++) {
        double e = (i + 0.15 + 0.7 * chance.unitAt(4 * i, j)) * SPACING;
        double n = (j + 0.15 + 0.7 * chance.unitAt(4 * i + 1, j)) * SPACING;
        if (!box.holds(e, n)) {
          continue;
        }
        if (tile == null || !tile.holds(e, n)) {
          tile = ground.tiles().at(e, n);
        }
        double draw = chance.unitAt(4 * i + 2, j);
        if (draw > 0.9) {
          continue;
        }
        tile.sample(e, n, sample);
        if (SHORE.of(sample) < 7) {
          continue;
        }
        Crown crown = crown(tile, sample, e, n, draw, chance.unitAt(4 * i + 3, j));
        if (crown != null) {
          crowns.add(crown);
        }
      }
    }
  }

  /** How trees stand on a parcel of a region inland. */
  private record Orchard(double density) {

    static Orchard of(Parcel parcel, double e, double n) {
      return switch (parcel.use()) {
        case WOOD -> new Orchard(0.8);
        case PARK -> new Orchard(0.12);
        case ORCHARD -> {
          double across = -e * Math.sin(parcel.rows()) + n * Math.cos(parcel.rows());
          yield new Orchard(Math.abs(across - Math.rint(across / 6.5) * 6.5) < 1 ? 0.9 : 0);
        }
        case OPEN -> null;
        default -> new Orchard(0.0006);
      };
    }
  }

  private Crown crown(
      GroundTile tile, float[] sample, double e, double n, double draw, double size) {
    double h = tile.height(e, n);
    double wood = tile.wood(e, n);
    double town = tile.inTown() ? ground.landform().built(e, n) : 0;
    boolean natural = woods && wood > 0.17 && h < HIGHEST && town - 0.6 * BROAD.of(sample) < 0.3;
    double chanceHere =
        natural ? Math.min(0.85, (wood - 0.17) * 7) * (1 - h / HIGHEST * 0.5) : 0.0025;
    boolean plantation = false;
    Orchard orchard = ground.cover().isPresent() ? Orchard.of(tile.parcel(e, n), e, n) : null;
    if (orchard != null) {
      natural = false;
      chanceHere = orchard.density;
    } else if (draw > chanceHere || !natural) {
      Parcel parcel = town < 0.3 && h < HIGHEST ? tile.parcel(e, n) : null;
      plantation = parcel != null && parcel.use() == Parcel.Use.PLANTATION;
      if (plantation) {
        chanceHere = 0.88;
      } else if (parcel != null && parcel.use().worked()) {
        chanceHere = 0.0008;
      }
    }
    if (draw > chanceHere
        || ROAD.of(sample) < 2.2
        || BURN.of(sample) < 0.5
        || LAKE.of(sample) < 1.06
        || QUARRY.of(sample) < 1.15) {
      return null;
    }
    boolean conifer = plantation || natural && chance.unitAt((long) e, (long) n + 77) < 0.25;
    double radius = conifer ? 1.0 + 0.9 * size : 1.2 + 2.3 * size * size + 0.6 * size;
    double tall = conifer ? radius * (1.9 + 0.8 * size) : radius * (0.85 + 0.35 * size);
    if (!things.open(e, n, radius * 0.8)) {
      return null;
    }
    float tone = (float) (0.72 + 0.6 * chance.unitAt((long) (e * 3), (long) (n * 3)));
    return new Crown(
        e,
        n,
        h + tall * (conifer ? 0.9 : 1.1),
        radius,
        tall,
        conifer ? Material.CONIFER : Material.BROADLEAF,
        tone);
  }
}
