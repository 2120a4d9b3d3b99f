package sharpkestrel.place.mosaic;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * Where seams are unwelcome: in outlines that are to stay whole and near them, and where something tall stands, from its
 * foot to where its top leans in each of the scenes. Shown by one scene from foot to top it is neither cut nor doubled.
 */
final class Obstacles {

  /** Metres above the terrain from which something counts as tall. */
  private static final float TALL = 2;
  /** Taller things, masts and chimneys of models, are followed no further. */
  private static final float TALLEST = 60;

  static final byte FREE = 0;
  static final byte NEAR = 1;
  static final byte WITHIN = 2;

  /**
   * Heights above the terrain on the block's grid.
   *
   * @param surface on the block's grid
   * @param terrain on the block's grid
   */
  record Tall(Raster surface, Raster terrain) {}

  private final Optional<PolygonFill> whole;
  private final Optional<PolygonFill> clearance;
  private final Optional<Tall> tall;
  private final List<double[]> leans = new ArrayList<>();

  /**
   * @param metres in a pixel of the block's grid
   */
  Obstacles(
      Optional<PolygonFill> whole,
      Optional<PolygonFill> clearance,
      Optional<Tall> tall,
      List<Member> members,
      double metres) {
    this.whole = whole;
    this.clearance = clearance;
    this.tall = tall;
    leans.add(new double[2]);
    for (Member member : members) {
      if (!Double.isNaN(member.nadir()) && !Double.isNaN(member.azimuth())) {
        double tangent = Math.tan(Math.toRadians(member.nadir())) / metres;
        double towards = Math.toRadians(member.azimuth());
        // tops lean away from the sensor; rows count southwards
        leans.add(new double[] {-tangent * Math.sin(towards), tangent * Math.cos(towards)});
      }
    }
  }

  /** {@link #FREE}, {@link #NEAR} or {@link #WITHIN} for each cell of a window at a level. */
  byte[] in(int level, Window window, Request request) {
    byte[] found = new byte[window.area()];
    clearance.ifPresent(c -> mark(found, c.fill(level, window), NEAR));
    whole.ifPresent(w -> mark(found, w.fill(level, window), WITHIN));
    tall.ifPresent(t -> mark(found, leaning(t, level, window, request), WITHIN));
    return found;
  }

  private static void mark(byte[] found, boolean[] where, byte as) {
    for (int i = 0; i < found.length; i++) {
      found[i] = where[i] ? as : found[i];
    }
  }

  private boolean[] leaning(Tall of, int level, Window window, Request request) {
    double size = 1 << level;
    double farthest = 0;
    for (double[] lean : leans) {
      farthest = Math.max(farthest, Math.hypot(lean[0], lean[1]) * TALLEST / size);
    }
    Window wide = window.grown((int) Math.ceil(farthest) + 1);
    float[] surface = new float[wide.area()];
    float[] terrain = new float[wide.area()];
    of.surface.read(level, wide, bands(of.surface, surface), request);
    of.terrain.read(level, wide, bands(of.terrain, terrain), request);
    boolean[] marked = new boolean[window.area()];
    for (int i = 0; i < surface.length; i++) {
      float height = Math.min(TALLEST, surface[i] - terrain[i]);
      if (height > TALL) {
        int x = wide.x() + i % wide.width() - window.x();
        int y = wide.y() + i / wide.width() - window.y();
        for (double[] lean : leans) {
          line(x, y, height * lean[0] / size, height * lean[1] / size, window, marked);
        }
      }
    }
    return marked;
  }

  private static float[][] bands(Raster raster, float[] plane) {
    float[][] target = new float[raster.bands().size()][];
    target[0] = plane;
    return target;
  }

  private static void line(int x, int y, double dx, double dy, Window window, boolean[] marked) {
    int steps = (int) Math.ceil(Math.max(Math.abs(dx), Math.abs(dy)));
    for (int k = 0; k <= steps; k++) {
      double share = steps == 0 ? 0 : (double) k / steps;
      int col = (int) Math.round(x + share * dx);
      int row = (int) Math.round(y + share * dy);
      if (col >= 0 && row >= 0 && col < window.width() && row < window.height()) {
        marked[row * window.width() + col] = true;
      }
    }
  }
}
