package sharpkestrel.demo.scene;

import static sharpkestrel.demo.ground.GroundTile.Field.BLEACHED;
import static sharpkestrel.demo.ground.GroundTile.Field.BROAD;
import static sharpkestrel.demo.ground.GroundTile.Field.BURN;
import static sharpkestrel.demo.ground.GroundTile.Field.DAMP;
import static sharpkestrel.demo.ground.GroundTile.Field.HEATHER;
import static sharpkestrel.demo.ground.GroundTile.Field.LAKE;
import static sharpkestrel.demo.ground.GroundTile.Field.QUARRY;
import static sharpkestrel.demo.ground.GroundTile.Field.ROAD;
import static sharpkestrel.demo.ground.GroundTile.Field.ROCKY;
import static sharpkestrel.demo.ground.GroundTile.Field.SHORE;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.ground.Parcel;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.noise.SmoothTexture;

/**
 * What covers bare ground at a place: its class, its reflectance there, and how its small relief turns it to the sun. By rules of its
 * own in the archipelago, by mixtures elsewhere.
 */
final class Land extends Laid {

  private final Ground ground;
  private final SmoothTexture smooth;
  private final Grain grain;
  private final Roadway roadway;
  private final Mixtures mixtures;

  private float[] here;

  Land(Ground ground, SmoothTexture smooth, Grain grain, double wetness, Season season) {
    super(season);
    this.ground = ground;
    this.smooth = smooth;
    this.grain = grain;
    roadway = new Roadway(ground, smooth, grain, wetness);
    mixtures =
        ground.cover().map(cover -> new Mixtures(ground, cover, smooth, grain)).orElse(null);
  }

  /**
   * Cover of dry land.
   *
   * @param sample of the tile's fields there
   * @param steep slope of the ground, metres for a metre
   */
  void at(GroundTile tile, float[] sample, double e, double n, double h, double steep) {
    here = sample;
    tiltEast = 0;
    tiltNorth = 0;
    float road = ROAD.of(here);
    Road.Kind kind = road < 1.6 ? tile.roadKind(e, n) : null;
    if (kind != null && road < roadway.edge(kind, e, n)) {
      roadway.lay(this, tile, here, kind, e, n);
      return;
    }
    float quarry = QUARRY.of(here);
    float shore = SHORE.of(here);
    double broad = BROAD.of(here);
    double fine = grain.at(e, n, 0.45);
    if (quarry < 1.02 + 0.05 * broad) {
      quarry(quarry, steep, broad, fine);
    } else if (peat(tile, e, n, broad, fine)) {
      return;
    } else if (mixtures != null) {
      mixtures.lay(this, tile, here, e, n, fine);
    } else if (shore < 3.2 + 2.2 * broad + 4 * smooth.at(e / 150, n / 150)) {
      beach(shore, e, n, broad, fine);
    } else {
      country(tile, e, n, h, steep, shore, broad, fine);
    }
    if (kind != null && road < 1.4) {
      mix(Material.GRAVEL, 0.5 * (1.4 - road));
    }
    foot(fine);
  }

  private void quarry(double share, double steep, double broad, double fine) {
    set(steep > 0.45 ? Material.ROCK : Material.GRAVEL);
    mix(Material.PALE_ROCK, 0.42 + 0.7 * broad);
    scale(1 + 0.14 * fine - (share < 0.3 ? 0.12 : 0));
    tiltEast = 0.10 * fine;
    tiltNorth = 0.08 * fine;
  }

  /** Banks of cut peat: dark faces, drying floors, turves laid out in rows. */
  private boolean peat(GroundTile tile, double e, double n, double broad, double fine) {
    for (double[] w : tile.peat()) {
      double cos = Math.cos(w[2]);
      double sin = Math.sin(w[2]);
      double u = (e - w[0]) * cos + (n - w[1]) * sin;
      double v = -(e - w[0]) * sin + (n - w[1]) * cos;
      double out = Math.max(Math.abs(u) - w[3] / 2 + 6 * broad, Math.abs(v) - w[4] / 2 + 3 * broad);
      if (out > 0) {
        continue;
      }
      double bank = v / 9 - Math.floor(v / 9);
      set(Material.PEAT);
      if (bank > 0.62) {
        mix(Material.MOOR, 0.8 + broad);
      } else if (bank > 0.3) {
        // turves in rows, dried pale
        mix(Material.HEATHER, Math.sin(u * 2 * Math.PI / 1.3) > 0.3 ? 0.55 : 0.15);
      }
      double edge = bank < 0.06 ? 0.55 : 1;
      scale(edge * (1 + 0.14 * fine + 0.3 * broad));
      tiltNorth = 0.25 * fine;
      return true;
    }
    return false;
  }

  private void beach(double shore, double e, double n, double broad, double fine) {
    double rocky = ROCKY.of(here) + 0.4 * broad;
    if (rocky > 0.10) {
      set(Material.ROCK);
      mix(Material.LICHEN, 0.3 * shore);
      scale(0.75 + 0.28 * fine + 0.3 * broad);
      tiltEast = 0.34 * fine;
      tiltNorth = 0.3 * smooth.at(e / 1.3, n / 1.3);
    } else if (rocky > -0.16) {
      set(Material.SHINGLE);
      scale(0.92 + 0.17 * fine + 0.2 * broad);
    } else {
      set(Material.SAND);
      scale(0.9 + 0.03 * fine + 0.12 * broad);
    }
    // wet below the tide's mark, with a line of weed along it
    double mark = 1.7 + 1.2 * broad;
    if (shore < mark) {
      scale(0.66);
    }
    if (Math.abs(shore - mark) < 0.5 + 0.4 * broad) {
      mix(Material.WEED, 0.6);
    }
  }

  private void country(
      GroundTile tile,
      double e,
      double n,
      double h,
      double steep,
      double shore,
      double broad,
      double fine) {
    double rocky = ROCKY.of(here);
    double damp = DAMP.of(here);
    double bare = rocky - 0.46 + Math.max(0, steep - 0.55) * 1.1 + h / 3000 - 0.12 * damp;
    double town = tile.inTown() ? ground.landform().built(e, n) + 0.35 * broad : 0;
    if (town > 0.45 && bare < 0.05) {
      gardens(e, n, town, broad, fine, damp);
      return;
    }
    Parcel parcel = bare < 0.12 ? tile.parcel(e, n) : null;
    if (parcel != null && parcel.use().worked()) {
      worked(parcel, e, n, broad, fine, damp);
      if (bare > 0.04) {
        mix(Material.ROCK, (bare - 0.04) * 9);
      }
      return;
    }
    open(e, n, h, broad, fine, damp);
    if (bare > -0.03) {
      double share = Math.min(1, (bare + 0.03) * 7 + 0.35 * fine * (bare < 0.06 ? 1 : 0.2));
      boolean pale = damp + 0.5 * broad < -0.24;
      // grass keeps to the cracks and ledges
      double ledge =
          1.6 * smooth.octaves((e + 0.6 * n) / 13, (n - 0.6 * e) / 30, 5) + 0.5 * HEATHER.of(here);
      share *= Math.min(1, Math.max(0.12, 0.72 - 1.3 * ledge - 0.4 * damp));
      mix(pale ? Material.PALE_ROCK : Material.ROCK, share);
      if (share > 0.5) {
        mix(Material.LICHEN, 0.3 + 0.8 * smooth.at(e / 5, n / 5));
        scale(0.88 + 0.17 * fine + 0.25 * broad);
        tiltEast = 0.4 * smooth.at(e / 2.1, n / 4) + 0.15 * fine;
        tiltNorth = 0.4 * smooth.at(e / 4, n / 2.1);
      }
    }
  }

  /** Moor, heather, wet flushes and bleached grass, as the ground's wetness and height have it. */
  private void open(double e, double n, double h, double broad, double fine, double damp) {
    double height = Math.min(1, h / 160);
    set(Material.PASTURE);
    mix(Material.MEADOW, 0.45 + 0.9 * broad);
    double bleached = 0.25 + 0.9 * BLEACHED.of(here) - 0.5 * damp;
    mix(Material.DRY_GRASS, bleached);
    double moor = 1.1 * height + 1.25 * damp + 0.8 * broad - 0.1;
    mix(Material.MOOR, moor);
    double heather = 1.5 * HEATHER.of(here) + 0.6 * height - 0.30;
    mix(Material.HEATHER, heather * 1.6);
    if (damp > 0.22) {
      mix(Material.RUSHES, (damp - 0.22) * 6 * (0.6 + smooth.at(e / 3, n / 3)));
    }
    if (damp + 0.3 * broad > 0.44) {
      mix(Material.PEAT, (damp + 0.3 * broad - 0.44) * 8);
    }
    double tufts = smooth.at(e / 1.4, n / 1.4);
    scale(1 + 0.11 * fine + 0.13 * tufts + 0.2 * broad);
    tiltEast = 0.16 * tufts + 0.06 * fine;
    tiltNorth = 0.16 * smooth.at(e / 1.4 + 40, n / 1.4);
  }

  private void worked(Parcel parcel, double e, double n, double broad, double fine, double damp) {
    double cos = Math.cos(parcel.rows());
    double sin = Math.sin(parcel.rows());
    double across = -e * sin + n * cos + 0.5 * smooth.at(e / 40, n / 40);
    double wear = smooth.octaves(e / 15, n / 15, 4);
    double row = 0;
    switch (parcel.use()) {
      case PASTURE -> {
        set(Material.PASTURE);
        mix(Material.MEADOW, 0.25 + 0.5 * parcel.dry() + 0.9 * wear);
        mix(Material.RUSHES, (damp + 0.4 * broad - 0.12) * 4);
      }
      case MEADOW -> {
        set(Material.MEADOW);
        mix(Material.DRY_GRASS, parcel.dry() + 0.5 * wear);
        row = 0.05 * Math.sin(across * 2 * Math.PI / 6.5);
      }
      case STUBBLE -> {
        set(Material.STUBBLE);
        mix(Material.SOIL, 0.22 + 0.6 * wear);
        row = 0.11 * Math.sin(across * 2 * Math.PI / 2.8);
      }
      case PLOUGHED -> {
        set(Material.SOIL);
        mix(Material.STUBBLE, 0.2 + 0.5 * wear);
        row = 0.10 * Math.sin(across * 2 * Math.PI / 1.9);
        tiltEast = -sin * 0.34 * Math.cos(across * 2 * Math.PI / 1.9);
        tiltNorth = cos * 0.34 * Math.cos(across * 2 * Math.PI / 1.9);
      }
      case OATS -> {
        set(Material.OATS);
        mix(Material.SOIL, 0.16 + 0.7 * wear);
        double tram = across - Math.floor(across / 14) * 14;
        row = tram < 0.7 || tram > 2 && tram < 2.7 ? -0.28 : 0;
      }
      case ROOTS -> {
        set(Material.ROOTS);
        mix(Material.SOIL, 0.42 + 0.55 * Math.sin(across * 2 * Math.PI / 1.5) + 0.4 * wear);
      }
      case RUSHES -> {
        set(Material.RUSHES);
        mix(Material.PASTURE, 0.35 + 1.1 * wear);
      }
      default -> {
        set(Material.MOOR);
        mix(Material.PASTURE, 0.4 + wear);
      }
    }
    scale(parcel.bright()
        * (1 + row + material.grainy * fine + 0.7 * material.patchy * (wear + broad)));
    tiltEast += 0.05 * fine;
  }

  /** Ground between the houses of the town: gardens, trodden earth, flags. */
  private void gardens(double e, double n, double town, double broad, double fine, double damp) {
    // plots of a few metres, each kept in its own way
    double pe = 0.83 * e + 0.55 * n + 7 * smooth.at(e / 34, n / 34);
    double pn = 0.83 * n - 0.55 * e + 7 * smooth.at(n / 34 + 5, e / 34);
    double kept = 0.75 * grain.at(pe, pn, 13.3);
    double worn = smooth.octaves(e / 7, n / 7, 4);
    set(Material.PASTURE);
    mix(Material.MEADOW, 0.45 + 0.3 * kept + worn);
    mix(Material.DRY_GRASS, 0.2 + 0.6 * worn - 0.4 * damp - 0.2 * kept);
    if (kept > 1.05) {
      mix(Material.SOIL, 0.55 + 0.4 * worn);
    } else if (kept < -0.9) {
      mix(Material.HEDGE, 0.35 + 1.4 * worn);
    }
    double trodden = 0.6 * (town - 1.05) + 0.9 * worn + 0.12 * kept;
    mix(Material.SOIL, 0.9 * trodden + 0.1);
    mix(Material.GRAVEL, 2.0 * trodden - 0.1);
    mix(Material.CONCRETE, 3.5 * (trodden - 0.5));
    scale(1 + 0.09 * fine + 0.12 * broad);
  }

  /** Burns and lakes have banks of stones. */
  private void foot(double fine) {
    float lake = LAKE.of(here);
    if (lake < 1.06) {
      mix(Material.SHINGLE, 0.55 + 0.3 * fine);
    }
    float burn = BURN.of(here);
    if (burn < 0.7) {
      mix(Material.ROCK, 0.4 + 0.3 * fine);
    } else if (burn < 3.5) {
      mix(Material.RUSHES, 0.16 * (3.5 - burn));
    }
  }
}
