package sharpkestrel.demo.ground;

import sharpkestrel.demo.noise.Chance;

/**
 * Roads along the bounds of parcels: between built blocks everywhere, the wider the earlier the bound was drawn; between fields
 * here and there.
 */
public final class Streets {

  private static final double ASIDE = 4;
  private static final double STEP = 24;

  /**
   * What is laid.
   *
   * @param bounds along the bounds of cells in built land, {@code first} along the first splits, {@code rest} along the others
   * @param fields between fields along the bounds of cells, and {@code track} along splits
   * @param often share of the bounds of cells between fields that have a road
   */
  public record Kinds(
      Road.Kind bounds,
      Road.Kind first,
      Road.Kind rest,
      Road.Kind fields,
      Road.Kind track,
      double often) {}

  private final Ground ground;
  private final Kinds kinds;

  public Streets(Ground ground, Kinds kinds) {
    this.ground = ground;
    this.kinds = kinds;
  }

  /** Lays them wherever the ground's extent needs it. */
  public void lay() {
    for (Parcels.Boundary line : ground.parcels().boundaries(ground.extent().grown(200))) {
      Chance chance = Chance.of(ground.seed(), 37, line.key());
      Road.Kind kind = kind(line, chance);
      if (kind != null) {
        lay(line, kind);
      }
    }
  }

  private Road.Kind kind(Parcels.Boundary line, Chance chance) {
    double e = (line.e0() + line.e1()) / 2;
    double n = (line.n0() + line.n1()) / 2;
    double length = Math.max(1e-9, Math.hypot(line.e1() - line.e0(), line.n1() - line.n0()));
    double ae = -ASIDE * (line.n1() - line.n0()) / length;
    double an = ASIDE * (line.e1() - line.e0()) / length;
    Parcel.Use left = ground.parcels().at(e + ae, n + an).use();
    Parcel.Use right = ground.parcels().at(e - ae, n - an).use();
    boolean built = left.built() || right.built();
    boolean both = left.built() && right.built();
    if (line.depth() < 0) {
      return built ? kinds.bounds : chance.happens(kinds.often) ? kinds.fields : null;
    }
    if (both || built && line.depth() == 0) {
      return line.depth() < 2 ? kinds.first : kinds.rest;
    }
    return chance.happens(built ? 0.5 : 0.1) ? kinds.track : null;
  }

  /** In pieces, those on water left out. */
  private void lay(Parcels.Boundary line, Road.Kind kind) {
    double length = Math.hypot(line.e1() - line.e0(), line.n1() - line.n0());
    int pieces = Math.max(1, (int) (length / STEP));
    int from = 0;
    for (int k = 0; k <= pieces; k++) {
      double t = (double) k / pieces;
      double e = line.e0() + t * (line.e1() - line.e0());
      double n = line.n0() + t * (line.n1() - line.n0());
      boolean dry = ground.landform().at(e, n) > kind.half + 1;
      if (!dry || k == pieces) {
        road(line, kind, from, dry ? k : k - 1, pieces);
        from = k + 1;
      }
    }
  }

  private void road(Parcels.Boundary line, Road.Kind kind, int from, int to, int pieces) {
    if (to <= from) {
      return;
    }
    double[] way = new double[2 * (to - from + 1)];
    for (int k = from; k <= to; k++) {
      double t = (double) k / pieces;
      way[2 * (k - from)] = line.e0() + t * (line.e1() - line.e0());
      way[2 * (k - from) + 1] = line.n0() + t * (line.n1() - line.n0());
    }
    ground.roads().add(new Road(kind, way));
  }
}
