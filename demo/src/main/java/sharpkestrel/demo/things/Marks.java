package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Pattern;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Surveyed marks: white discs on level, open ground, well apart. */
final class Marks {

  private Marks() {}

  static void lay(Ground ground, Things things, Extent inner) {
    Chance chance = Chance.of(ground.seed(), 44);
    double side = Math.min(inner.width(), inner.height());
    int placed = 0;
    for (int tries = 0; tries < 20_000 && placed < 24; tries++) {
      double e = inner.west() + inner.width() * chance.unit();
      double n = inner.south() + inner.height() * chance.unit();
      boolean level = Math.hypot(
              ground.height(e + 3, n) - ground.height(e - 3, n),
              ground.height(e, n + 3) - ground.height(e, n - 3))
          < 1.6;
      boolean apart =
          things.marks().stream().allMatch(mark -> Math.hypot(mark[0] - e, mark[1] - n) > side / 8);
      if (apart
          && level
          && ground.buildable(e, n)
          && ground.roads().beyondEdge(e, n) > 5
          && things.open(e, n, 6)) {
        things.mark(e, n, ground.height(e, n));
        things.take(Polygons.oblong(e, n, 0, 9, 9));
        double[] ring = new double[24];
        for (int k = 0; k < 12; k++) {
          ring[2 * k] = e + 1.5 * Math.cos(k * Math.PI / 6);
          ring[2 * k + 1] = n + 1.5 * Math.sin(k * Math.PI / 6);
        }
        things.add(new Patch(
            ring,
            Surface.of(Material.MARK).with(Pattern.PLAIN, Material.MARK.spectrum(), 0, 0),
            0));
        placed++;
      }
    }
  }
}
