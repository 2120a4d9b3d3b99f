package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Parcels;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Dry-stone dykes and hedges along the bounds of worked land, as wide as small buildings here and there. */
final class Dykes {

  private static final double PIECE = 8;

  private final Ground ground;
  private final Things things;

  private final double[] shares;

  /**
   * @param shares of dykes, hedges and nothing
   */
  Dykes(Ground ground, Things things, double... shares) {
    this.ground = ground;
    this.things = things;
    this.shares = shares;
  }

  void along(Extent extent) {
    for (Parcels.Boundary line : ground.parcels().boundaries(extent)) {
      Chance chance = Chance.of(ground.seed(), 71, line.key());
      int kind = chance.weighted(shares);
      double width = kind == 0 ? chance.between(0.8, 1.9) : chance.between(1.6, 3.6);
      double height = kind == 0 ? chance.between(1.0, 1.6) : chance.between(1.4, 2.8);
      float[] rho = kind == 0
          ? Material.DYKE.toned(chance.between(0.7, 1.25), 0.02 * chance.gaussian())
          : Material.HEDGE.toned(chance.between(0.8, 1.2), 0.01 * chance.gaussian());
      Surface surface = Surface.of(kind == 0 ? Material.DYKE : Material.HEDGE, rho);
      if (kind < 2) {
        pieces(line, width, height, surface, extent, chance);
      }
    }
  }

  private void pieces(
      Parcels.Boundary line,
      double width,
      double height,
      Surface surface,
      Extent extent,
      Chance chance) {
    double de = line.e1() - line.e0();
    double dn = line.n1() - line.n0();
    double length = Math.hypot(de, dn);
    int count = (int) Math.ceil(length / PIECE);
    double angle = Math.atan2(dn, de);
    double gate = chance.between(0.1, 0.9) * count;
    for (int k = 0; k < count; k++) {
      double t = (k + 0.5) / count;
      double e = line.e0() + t * de;
      double n = line.n0() + t * dn;
      boolean gap = Math.abs(k - gate) < 0.5 || chance.happens(0.03);
      if (gap || !extent.holds(e, n) || !wanted(e, n, angle)) {
        continue;
      }
      Frame spot = Frame.at(e, n, angle + 0.02 * chance.gaussian());
      double run = length / count;
      double[] ring = spot.oblong(0, 0, run + 0.25, width);
      if (!things.open(spot.oblong(0, 0, run - 0.4, width))) {
        continue;
      }
      things.take(ring);
      double base = ground.height(e, n);
      double rise = (ground.height(e + de / length * 3, n + dn / length * 3)
              - ground.height(e - de / length * 3, n - dn / length * 3))
          / 6;
      double top = base + height * chance.between(0.9, 1.1);
      // follows the ground along its run, and is a little thinner at the top
      double lx = rise * de / length;
      double ly = rise * dn / length;
      double batter = 0.7;
      double[][] roof = {
        {top, lx, ly},
        {top + batter * width * 0.3, lx + batter * Math.sin(angle), ly - batter * Math.cos(angle)},
        {top + batter * width * 0.3, lx - batter * Math.sin(angle), ly + batter * Math.cos(angle)}
      };
      things.add(new Solid(ring, base, roof, surface, surface));
    }
  }

  private boolean wanted(double e, double n, double angle) {
    double se = -3 * Math.sin(angle);
    double sn = 3 * Math.cos(angle);
    boolean worked = ground.parcels().at(e + se, n + sn).use().worked()
        || ground.parcels().at(e - se, n - sn).use().worked();
    return worked
        && ground.landform().at(e, n) > 9
        && ground.landform().built(e, n) < 0.04
        && ground.roads().beyondEdge(e, n) > 1.2
        && ground.buildable(e, n);
  }
}
