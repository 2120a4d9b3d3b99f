package sharpkestrel.demo.ground;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.noise.Noise;
import sharpkestrel.raster.Extent;

/**
 * The land of one seed, as far as an extent needs it. Every feature is drawn from the seed and its own place, so two
 * extents agree about the ground they share. Heights are metres above the geoid.
 */
public final class Ground {

  private static final double WORK_SQUARE = 850;
  private static final double MARGIN = 1300;
  /** Shares of the way to a shore or an edge, and metres to a burn, that stand for all that is farther. */
  private static final double FAR = 9;

  private static final double BURN_FAR = 8;

  private final long seed;
  private final Extent extent;
  private final Landform landform;
  private final Noise fertile;
  private final Sites sites;
  private final Roads roads = new Roads();
  private final Parcels parcels;
  private final Cover cover;
  private final Cells<Lake> lakes = new Cells<>(128);
  private final Cells<Quarry> quarries = new Cells<>(128);
  private final Cells<Terrace> terraces = new Cells<>(128);
  private final Cells<double[]> burns = new Cells<>(32);
  private final Cells<double[]> peat = new Cells<>(128);
  private final GroundTiles tiles;

  /** The ground of the archipelago. */
  public Ground(long seed, Extent extent) {
    this(seed, extent, new IslesPlan());
  }

  public Ground(long seed, Extent extent, GroundPlan plan) {
    this.seed = seed;
    this.extent = extent;
    landform = plan.landform(seed);
    fertile = new Noise(seed * 31 + 24);
    if (plan.isWild()) {
      Extent about = extent.grown(MARGIN);
      for (long j = square(about.south()); j <= square(about.north()); j++) {
        for (long i = square(about.west()); i <= square(about.east()); i++) {
          lake(i, j);
        }
      }
      for (long j = square(about.south()); j <= square(about.north()); j++) {
        for (long i = square(about.west()); i <= square(about.east()); i++) {
          works(i, j);
        }
      }
    }
    parcels = new Parcels(seed, plan.division(this));
    cover = plan.cover().orElse(null);
    sites = landform instanceof Isles isles ? new Sites(seed, isles.coast(), this, extent) : null;
    plan.lay(this);
    tiles = new GroundTiles(this);
  }

  private static long square(double at) {
    return (long) Math.floor(at / WORK_SQUARE);
  }

  private void lake(long i, long j) {
    Chance chance = Chance.of(seed, 34, i, j);
    double e = (i + chance.between(0.2, 0.8)) * WORK_SQUARE;
    double n = (j + chance.between(0.2, 0.8)) * WORK_SQUARE;
    double radius = chance.between(26, 80);
    if (landform.at(e, n) > radius * 2 + 40 && landform.town(e, n) == 0 && chance.happens(0.62)) {
      double low = Double.POSITIVE_INFINITY;
      double high = 0;
      for (int k = 0; k < 16; k++) {
        double h = bare(
            e + 1.3 * radius * Math.cos(k * Math.PI / 8),
            n + 1.3 * radius * Math.sin(k * Math.PI / 8));
        low = Math.min(low, h);
        high = Math.max(high, h);
      }
      if (high - low < 0.55 * radius) {
        Lake lake = new Lake(e, n, radius, low - 0.4, new Noise(Noise.mix(seed ^ i * 7919 + j)));
        lakes.enter(lake, e, n, lake.reach());
      }
    }
  }

  /** The burns, the quarry and the peat works of a square, where the land suits them. */
  private void works(long i, long j) {
    Chance chance = Chance.of(seed, 35, i, j);
    for (int k = 0; k < 2; k++) {
      runBurn((i + chance.unit()) * WORK_SQUARE, (j + chance.unit()) * WORK_SQUARE);
    }
    double qe = (i + chance.unit()) * WORK_SQUARE;
    double qn = (j + chance.unit()) * WORK_SQUARE;
    double slope = landform.slope(qe, qn, 40);
    if (chance.happens(0.55)
        && landform.at(qe, qn) > 120
        && landform.town(qe, qn) == 0
        && slope > 0.12
        && slope < 0.62
        && lakes.within(qe - 120, qn - 120, qe + 120, qn + 120).isEmpty()) {
      double r = chance.between(32, 58);
      double floor = Double.POSITIVE_INFINITY;
      for (int k = 0; k < 12; k++) {
        double a = k * Math.PI / 6;
        floor = Math.min(floor, bare(qe + r * 0.8 * Math.cos(a), qn + r * 0.8 * Math.sin(a)));
      }
      Quarry quarry = new Quarry(qe, qn, r, floor + 1, new Noise(Noise.mix(seed ^ i * 104729 + j)));
      quarries.enter(quarry, qe, qn, quarry.reach());
    }
    double pe = (i + chance.unit()) * WORK_SQUARE;
    double pn = (j + chance.unit()) * WORK_SQUARE;
    if (chance.happens(0.6)
        && landform.at(pe, pn) > 180
        && landform.town(pe, pn) == 0
        && landform.slope(pe, pn, 50) < 0.24
        && fertility(pe, pn) < 0.25) {
      // east, north, direction of the banks, length, width
      double[] works = {
        pe, pn, chance.between(0, Math.PI), chance.between(90, 170), chance.between(50, 95)
      };
      peat.enter(works, pe, pn, Math.hypot(works[3], works[4]) / 2);
    }
  }

  /** A burn runs down the steepest way to the sea or a lake. */
  private void runBurn(double startE, double startN) {
    double e = startE;
    double n = startN;
    if (landform.smooth(e, n) < 150) {
      return;
    }
    double along = 0;
    double[] course = {0, 0};
    for (int k = 0; k < 170; k++) {
      double ge = bare(e + 9, n) - bare(e - 9, n);
      double gn = bare(e, n + 9) - bare(e, n - 9);
      double g = Math.hypot(ge, gn);
      if (g > 1e-6) {
        course[0] = 0.45 * course[0] - ge / g;
        course[1] = 0.45 * course[1] - gn / g;
      }
      double c = Math.hypot(course[0], course[1]);
      if (c < 1e-6) {
        return;
      }
      course[0] /= c;
      course[1] /= c;
      double e1 = e + 7 * course[0];
      double n1 = n + 7 * course[1];
      along += 7;
      // from, to, half-width
      double[] piece = {e, n, e1, n1, 0.5 + Math.min(2.0, along / 400)};
      burns.enter(
          piece,
          Math.min(e, e1) - 8,
          Math.min(n, n1) - 8,
          Math.max(e, e1) + 8,
          Math.max(n, n1) + 8);
      e = e1;
      n = n1;
      if (landform.at(e, n) < 2) {
        return;
      }
      for (Lake lake : lakes.at(e, n)) {
        if (lake.share(e, n) < 1) {
          return;
        }
      }
    }
  }

  /** 0 for open land to 1 for the best fields. */
  public double fertility(double e, double n) {
    double shore = landform.at(e, n);
    if (shore < 12 || landform.built(e, n) > 0.3) {
      return 0;
    }
    double low = 1 - Landform.step(50, 150, bare(e, n));
    double level = 1 - Landform.step(0.2, 0.48, landform.slope(e, n, 30));
    return low * level * (0.85 + 0.7 * fertile.octaves(e / 700, n / 700, 3));
  }

  /** The form of the archipelago of a seed: enough to look for a place. */
  public static Landform isles(long seed) {
    return new Isles(seed);
  }

  void terrace(Terrace terrace) {
    terraces.enter(terrace, terrace.east(), terrace.north(), terrace.reach());
  }

  /** Height of the land before anything was cut into it. */
  double bare(double e, double n) {
    return landform.bare(e, n);
  }

  /** Height at a place, as the tiles have it at their nodes. */
  public double height(double e, double n) {
    Cuts here = new Cuts(
        lakes.at(e, n), quarries.at(e, n), terraces.at(e, n), !burns.at(e, n).isEmpty());
    return height(landform.at(e, n), landform.broad(e, n), here, e, n, new double[3]);
  }

  /** What is cut into the land of a box: looked for once for all nodes of a tile. */
  record Cuts(
      Collection<Lake> lakes,
      Collection<Quarry> quarries,
      Collection<Terrace> terraces,
      boolean burns) {}

  Cuts cuts(Extent box) {
    return new Cuts(
        lakes.within(box.west(), box.south(), box.east(), box.north()),
        quarries.within(box.west(), box.south(), box.east(), box.north()),
        terraces.within(box.west(), box.south(), box.east(), box.north()),
        !burns.within(box.west(), box.south(), box.east(), box.north()).isEmpty());
  }

  /**
   * @param shore metres to the shore at this place
   * @param cut (output) share of the way to a lake's shore, metres beyond a burn, share of the way to a quarry's edge
   */
  double height(double shore, Landform.Broad broad, Cuts cuts, double e, double n, double[] cut) {
    double h = landform.height(shore, broad, e, n);
    cut[2] = FAR;
    for (Quarry quarry : cuts.quarries) {
      double share = quarry.share(e, n);
      h = quarry.height(share, h);
      cut[2] = Math.min(cut[2], share);
    }
    cut[1] = cuts.burns ? burn(e, n) : BURN_FAR;
    if (cut[1] < BURN_FAR) {
      h = Math.max(Math.min(h, 0.05), h - 1.1 * Math.exp(-cut[1] * cut[1] / 6));
    }
    cut[0] = FAR;
    for (Lake lake : cuts.lakes) {
      if (lake.nears(e, n)) {
        double share = lake.share(e, n);
        h = lake.height(share, h);
        cut[0] = Math.min(cut[0], share);
      }
    }
    for (Terrace terrace : cuts.terraces) {
      h = terrace.height(e, n, h);
    }
    return h;
  }

  /** Metres beyond the edge of the nearest burn, below 0 in it; at most 8. */
  double burn(double e, double n) {
    double least = BURN_FAR;
    for (double[] p : burns.at(e, n)) {
      double dx = p[2] - p[0];
      double dy = p[3] - p[1];
      double t = ((e - p[0]) * dx + (n - p[1]) * dy) / (dx * dx + dy * dy);
      t = Math.max(0, Math.min(1, t));
      double d = Math.hypot(e - p[0] - t * dx, n - p[1] - t * dy) - p[4];
      least = Math.min(least, d);
    }
    return least;
  }

  /** Share of the way from the middle of the nearest lake to its shore; 9 far from any. */
  double lake(double e, double n) {
    double least = FAR;
    for (Lake lake : lakes.at(e, n)) {
      if (lake.nears(e, n)) {
        least = Math.min(least, lake.share(e, n));
      }
    }
    return least;
  }

  /** Share of the way from the middle of the nearest quarry to its edge; 9 far from any. */
  double quarry(double e, double n) {
    double least = FAR;
    for (Quarry quarry : quarries.at(e, n)) {
      least = Math.min(least, quarry.share(e, n));
    }
    return least;
  }

  /** The peat works near a place: east, north, direction, length, width. */
  List<double[]> peat(double e, double n) {
    return peat.at(e, n);
  }

  /** All peat works that meet the box. */
  public Iterable<double[]> peatWithin(Extent box) {
    return peat.within(box.west(), box.south(), box.east(), box.north());
  }

  public Iterable<Quarry> quarriesWithin(Extent box) {
    return quarries.within(box.west(), box.south(), box.east(), box.north());
  }

  /** Whether a building may stand here: dry, clear of water, pits and peat. */
  public boolean buildable(double e, double n) {
    return landform.at(e, n) > 5
        && burn(e, n) > 2.5
        && lake(e, n) > 1.25
        && quarry(e, n) > 1.3
        && peat(e, n).isEmpty();
  }

  public long seed() {
    return seed;
  }

  public Extent extent() {
    return extent;
  }

  public Landform landform() {
    return landform;
  }

  /**
   * The coast of the archipelago.
   *
   * @throws IllegalStateException on other ground
   */
  public Coast coast() {
    if (landform instanceof Isles isles) {
      return isles.coast();
    }
    throw new IllegalStateException("There is no coast here.");
  }

  public Roads roads() {
    return roads;
  }

  public Parcels parcels() {
    return parcels;
  }

  public Sites sites() {
    return sites;
  }

  /** What covers it, told as mixtures; empty for the archipelago. */
  public Optional<Cover> cover() {
    return Optional.ofNullable(cover);
  }

  public GroundTiles tiles() {
    return tiles;
  }
}
