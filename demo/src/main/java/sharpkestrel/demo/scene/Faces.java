package sharpkestrel.demo.scene;

import java.util.Arrays;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.SmoothTexture;
import sharpkestrel.demo.things.Patch;
import sharpkestrel.demo.things.Solid;

/** Reflectance of a face at a point of it: its own spectrum, what its pattern lays over it, and its wear. */
final class Faces {

  private final SmoothTexture smooth;
  private final Grain grain;

  /** What was met last. */
  final float[] rho = new float[Material.BANDS];

  /** What the season makes of each material, as a factor by band; null where nothing. */
  private final float[][] changed = new float[Material.values().length][];

  Faces(SmoothTexture smooth, Grain grain, Season season) {
    this.smooth = smooth;
    this.grain = grain;
    for (Material material : Material.values()) {
      float[] then = season.spectrum(material);
      if (!Arrays.equals(then, material.spectrum())) {
        float[] factor = new float[Material.BANDS];
        for (int b = 0; b < factor.length; b++) {
          factor[b] = then[b] / material.reflectance(b);
        }
        changed[material.ordinal()] = factor;
      }
    }
  }

  /** A patch of ground. */
  void patch(Patch patch, double e, double n) {
    Surface s = patch.surface;
    double over = switch (s.pattern()) {
      case LANES -> lanes(s, e - patch.east, n - patch.north, patch.inside(e, n));
      case TUFTS -> tufts(s, e, n);
      default -> 0;
    };
    lay(s, over, 1 + wear(s.material(), e, n));
  }

  /** A face of a solid, {@code z} metres above the geoid. */
  void solid(Solid solid, int face, double e, double n, double z) {
    Surface s = solid.surface(face);
    double de = e - solid.east;
    double dn = n - solid.north;
    double u = de * s.cos() + dn * s.sin();
    double v = -de * s.sin() + dn * s.cos();
    boolean wall = solid.isWall(face);
    double over = switch (s.pattern()) {
      case SHEETS -> sheets(s, u, v, e, n);
      case COURSES -> smooth.octaves(e / 2.4, n / 2.4, 3) > 0.55 - s.share() ? 0.8 : 0;
      case TUFTS -> tufts(s, e, n);
      case WINDOWS -> wall ? windows(solid, s, e, n, z) : 0;
      case PANES -> Math.abs(u - Math.rint(u / 1.2) * 1.2) < 0.07 ? 0.8 : 0;
      case RIM -> wall || solid.inside(e, n) < s.share() ? 1 : 0;
      case STRIPES ->
        Math.abs(u - Math.rint(u / s.share()) * s.share()) < s.share() * 0.22 ? 0.8 : 0;
      default -> 0;
    };
    double factor = 1 + wear(s.material(), e, n);
    if (!wall && s.material() == Material.SLATE_ROOF) {
      factor += 0.05 * grain.at(u + 7000, v + 9000, 0.42);
    }
    lay(s, over, factor);
  }

  private double wear(Material material, double e, double n) {
    return material.patchy * (smooth.at(e / 2.7, n / 2.7) + 0.7 * smooth.at(e / 8.3, n / 8.3))
        + material.grainy * grain.at(e, n, 0.4);
  }

  private void lay(Surface s, double over, double factor) {
    float f = (float) Math.max(0.3, factor);
    float o = (float) over;
    for (int b = 0; b < Material.BANDS; b++) {
      rho[b] = (s.rho()[b] + (s.second()[b] - s.rho()[b]) * o) * f;
    }
    float[] then = changed[s.material().ordinal()];
    if (then != null) {
      for (int b = 0; b < Material.BANDS; b++) {
        rho[b] *= then[b];
      }
    }
  }

  /** Sheets of about a metre with stains that run down the slope from where they began. */
  private double sheets(Surface s, double u, double v, double e, double n) {
    double sheet = Math.floor(u / 1.05);
    double own = smooth.at(sheet * 0.73 + s.rho()[2] * 999, 3.7);
    double run = smooth.octaves(u / 0.9, v / 7.5, 3) + 0.5 * smooth.at(e / 4, n / 4);
    double seam = Math.abs(u - Math.rint(u / 1.05) * 1.05) < 0.06 ? 0.12 : 0;
    if (s.share() <= 0) {
      return seam;
    }
    double stained = (run + 0.5 * own - 0.62 + 1.3 * s.share()) * 1.8;
    return Math.max(seam, Math.min(0.95, Math.max(0, stained)));
  }

  private double tufts(Surface s, double e, double n) {
    double t = smooth.octaves(e / 1.9, n / 1.9, 3) + 0.4 * smooth.at(e / 6, n / 6);
    return Math.max(0, Math.min(1, 0.35 + 0.9 * t + 0.4 * (s.share() - 0.3)));
  }

  /** Windows in rows at each storey. */
  private double windows(Solid solid, Surface s, double e, double n, double z) {
    double storey = z - solid.base - 0.9;
    double up = storey - Math.floor(storey / 2.7) * 2.7;
    if (storey < 0 || up > 1.35 || z > solid.top - 0.5) {
      return 0;
    }
    double along = Math.abs((e - solid.east) * 0.7071 + (n - solid.north) * 0.7071)
        + Math.abs(-(e - solid.east) * 0.7071 + (n - solid.north) * 0.7071);
    double bay = along - Math.floor(along / 2.6) * 2.6;
    return bay < 2.6 * s.share() * 0.8 ? 0.9 : 0;
  }

  /** Painted lines every {@code share} metres across the pattern's direction, and one round the edge. */
  private double lanes(Surface s, double e, double n, double inside) {
    double v = e * s.cos() + n * s.sin();
    double off = Math.abs(v - Math.rint(v / s.share()) * s.share());
    return off < 0.09 && inside > 0.6 || Math.abs(inside - 0.6) < 0.09 ? 0.85 : 0;
  }
}
