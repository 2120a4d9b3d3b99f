package sharpkestrel.place.match;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntPredicate;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.place.GroundHeights;
import sharpkestrel.place.Heights;
import sharpkestrel.place.RectifiedRaster;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.CachedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.Window;

/**
 * Finds places of a reference in a scene whose model is nearly right. The scene is laid onto the reference by its model, so
 * that both have one scale and direction; then patches of gradients are correlated, first at a reduced size and far
 * about, then ever finer and nearer, the model being corrected in between by what most of the matches agree on.
 */
public final class TieFinder {

  private static final int PATCH = 64;
  private static final int FAR = 8;
  /** Searched no farther than this at one level, pixels of it. */
  private static final int FARTHEST = 40;
  /** Across and down, at the level with which the search begins. */
  private static final int FEWEST_PATCHES = 6;

  private static final int NEAR = 8;
  /** Metres over which a lean is taken. */
  private static final double RISE = 10;

  private static final double LEAST_SCORE = 0.25;
  /** Cells across and down over which points are spread. */
  private static final int CELLS = 16;

  /** Sides of the patches with which cells are filled that have no match yet. */
  private static final int[] FILLING = {PATCH, PATCH / 2};

  private static final int FILL_REACH = 4;
  private static final int FILL_SPOTS = 8;
  private static final double FILL_SCORE = 0.35;

  /** Thrown where the matches of patches do not agree. */
  static final class TooFew extends RasterException {
    TooFew(String message) {
      super(message);
    }
  }

  /**
   * What is looked for, and where.
   *
   * @param reach pixels of the level about where the model expects a spot
   * @param patch side of a patch
   * @param spots most in a cell
   */
  private record Search(
      ImageModel model,
      Window shared,
      int level,
      int reach,
      int patch,
      int spots,
      double leastScore) {}

  private final Raster scene;
  private final Raster reference;
  private final Optional<Heights> heights;
  private final GroundHeights groundHeights;
  private final double leanEast;
  private final double leanNorth;
  private final Job job;

  /**
   * @param scene of one band
   * @param reference of one band, placed
   */
  public TieFinder(Raster scene, Raster reference, Optional<Heights> heights, Job job) {
    this.scene = CachedRaster.of(scene);
    this.reference = CachedRaster.of(reference);
    this.heights = heights;
    groundHeights = new GroundHeights(heights, reference.grid().crs());
    this.job = job;
    Optional<Acquisition> seen = reference.attachments().get(Acquisition.class);
    double tangent = seen.map(a -> Math.tan(Math.toRadians(a.viewOffNadir()))).orElse(0.0);
    double azimuth = seen.map(a -> Math.toRadians(a.viewAzimuth())).orElse(0.0);
    leanEast = -orNought(tangent * Math.sin(azimuth));
    leanNorth = -orNought(tangent * Math.cos(azimuth));
  }

  private static double orNought(double value) {
    return Double.isNaN(value) ? 0 : value;
  }

  /**
   * @param base in the reference's system
   * @param kind of what corrects it, or a camera in its place
   * @param search how far the base may be off, pixels of the reference
   * @param most points that are wanted
   */
  public TiePoints find(ImageModel base, ModelKind kind, double search, int most) {
    Window shared = shared(base, search);
    int top = Math.max(0, (int) Math.ceil(Math.log(search / FAR) / Math.log(2)));
    while (top > 0 && Math.min(shared.width(), shared.height()) >> top < FEWEST_PATCHES * PATCH) {
      top--;
    }
    Agreement agreement =
        new Agreement(base, kind, scene.grid().width(), scene.grid().height());
    ImageModel model = base;
    List<Found> agreed = List.of();
    for (int level = top; level >= 0; level--) {
      int reach = level == top ? (int) Math.ceil(search / (1 << level)) + 1 : NEAR;
      List<Found> found = measure(model, shared, level, Math.min(reach, FARTHEST));
      agreed = agreement.near(found, model, level);
      if (agreed.size() < Math.max(6, kind.fewest() + 2)) {
        throw new TooFew("Only "
            + agreed.size()
            + " of "
            + found.size()
            + " matches agree with each other. The scene may lie farther from where it claims than"
            + " was searched, or show other ground: raise the search distance, or set a few points by"
            + " hand.");
      }
      model = agreement.fit(agreed).model();
    }
    List<Found> kept = agreement.consistent(agreed);
    for (int side : FILLING) {
      kept = filled(kept, agreement, shared, side);
    }
    return agreement.points(spread(kept, most));
  }

  /** Adds matches in the cells that have none, near where those that are kept tell, and within their error. */
  private List<Found> filled(List<Found> kept, Agreement agreement, Window shared, int side) {
    int across = Math.max(1, Math.min(CELLS, shared.width() / side));
    int down = Math.max(1, Math.min(CELLS, shared.height() / side));
    Affine toPixel = reference.grid().affine().inverse();
    boolean[] taken = new boolean[across * down];
    for (Found f : kept) {
      double x = toPixel.x(f.x(), f.y()) - shared.x();
      double y = toPixel.y(f.x(), f.y()) - shared.y();
      int cx = (int) Math.clamp(x * across / shared.width(), 0, across - 1);
      int cy = (int) Math.clamp(y * down / shared.height(), 0, down - 1);
      taken[cy * across + cx] = true;
    }
    ImageModel model = agreement.fit(kept).model();
    Search search = new Search(model, shared, 0, FILL_REACH, side, FILL_SPOTS, FILL_SCORE);
    List<Found> all = new ArrayList<>(kept);
    all.addAll(agreement.within(measure(search, across, down, cell -> !taken[cell]), kept));
    return agreement.consistent(all);
  }

  /**
   * The box of the reference, in pixels of full size, that the scene may show.
   *
   * @throws RasterException where there is none
   */
  private Window shared(ImageModel model, double margin) {
    Grid grid = reference.grid();
    int left = Integer.MAX_VALUE;
    int top = Integer.MAX_VALUE;
    int right = 0;
    int bottom = 0;
    int step = Math.max(1, Math.max(grid.width(), grid.height()) / 96);
    for (int row = 0; row < grid.height(); row += step) {
      for (int col = 0; col < grid.width(); col += step) {
        if (sees(model, grid.affine(), col, row, -margin)) {
          left = Math.min(left, col - step);
          right = Math.max(right, col + step);
          top = Math.min(top, row - step);
          bottom = Math.max(bottom, row + step);
        }
      }
    }
    if (right == 0) {
      throw new RasterException(
          "The scene and the reference have no ground in common, as far as the scene's own place can be trusted. Choose"
              + " a reference of the same area, or raise the search distance.");
    }
    return new Window(left, top, right - left, bottom - top).intersect(grid.window());
  }

  /** Whether the scene shows a place at least so many pixels from its edge. */
  private boolean sees(ImageModel model, Affine affine, double col, double row, double inside) {
    double x = affine.x(col, row);
    double y = affine.y(col, row);
    double[] image = new double[2];
    model.toImage(x, y, model.usesHeights() ? groundHeights.at(x, y) : 0, image);
    return image[0] > inside
        && image[1] > inside
        && image[0] < scene.grid().width() - inside
        && image[1] < scene.grid().height() - inside;
  }

  /** Looks for the spots of the reference at one level. */
  private List<Found> measure(ImageModel model, Window shared, int level, int reach) {
    int side = PATCH * 3 / 2;
    int across = Math.max(1, Math.min(CELLS, (shared.width() >> level) / side));
    int down = Math.max(1, Math.min(CELLS, (shared.height() >> level) / side));
    return measure(
        new Search(model, shared, level, reach, PATCH, level == 0 ? 3 : 2, LEAST_SCORE),
        across,
        down,
        cell -> true);
  }

  /**
   * @param across cells, and {@code down}; of those that are wanted
   */
  private List<Found> measure(Search search, int across, int down, IntPredicate wanted) {
    Grid grid = reference.grid();
    ImageModel model = search.model;
    Window shared = search.shared;
    int level = search.level;
    int patch = search.patch;
    Raster laid = CachedRaster.of(
        new RectifiedRaster(scene, model, heights, grid, Attachments.NONE, Resampling.BILINEAR));
    Grid at = grid.atLevel(level);
    int width = shared.width() >> level;
    int height = shared.height() >> level;
    int half = patch / 2 + search.reach;
    Spots.Place seen = (col, row) -> {
      for (int k = 0; k < 4; k++) {
        double c = col + (k % 2 == 0 ? -half : half);
        double r = row + (k / 2 == 0 ? -half : half);
        if (!sees(model, at.affine(), c, r, 0)) {
          return false;
        }
      }
      return true;
    };
    List<Found> found = Collections.synchronizedList(new ArrayList<>());
    AtomicInteger done = new AtomicInteger();
    Parallel.run(across * down, job, cell -> {
      if (!wanted.test(cell)) {
        return;
      }
      int x0 = (shared.x() >> level) + (int) ((long) width * (cell % across) / across);
      int x1 = (shared.x() >> level) + (int) ((long) width * (cell % across + 1) / across);
      int y0 = (shared.y() >> level) + (int) ((long) height * (cell / across) / down);
      int y1 = (shared.y() >> level) + (int) ((long) height * (cell / across + 1) / down);
      // spots keep half a patch from the edge of what they are sought in
      Window window = new Window(x0, y0, x1 - x0, y1 - y0).grown(patch / 2).intersect(at.window());
      for (int[] spot : Spots.in(reference, level, window, patch, search.spots, seen)) {
        match(search, laid, spot).ifPresent(found::add);
      }
      job.progress("Matching at 1:" + (1 << level), done.incrementAndGet(), (long) across * down);
    });
    List<Found> sorted = new ArrayList<>(new LinkedHashSet<>(found));
    sorted.sort(Comparator.comparingDouble(Found::y).thenComparingDouble(Found::x));
    return sorted;
  }

  private Optional<Found> match(Search search, Raster laid, int[] spot) {
    ImageModel model = search.model;
    int level = search.level;
    int reach = search.reach;
    int patch = search.patch;
    Window small = new Window(spot[0] - patch / 2, spot[1] - patch / 2, patch, patch);
    Window large = small.grown(reach);
    float[] ours = laid.read(level, large, job.request())[0];
    float[] theirs = reference.read(level, small, job.request())[0];
    if (holes(ours) > 0.02 || holes(theirs) > 0.02) {
      return Optional.empty();
    }
    PatchCorrelator.Match match = PatchCorrelator.find(
        GradientField.of(theirs, small.width(), small.height()),
        GradientField.of(ours, large.width(), large.height()),
        reach);
    if (!match.distinct() || match.score() < search.leastScore) {
      return Optional.empty();
    }
    Affine affine = reference.grid().atLevel(level).affine();
    double x = affine.x(spot[0], spot[1]);
    double y = affine.y(spot[0], spot[1]);
    double seenX = affine.x(spot[0] + match.dx(), spot[1] + match.dy());
    double seenY = affine.y(spot[0] + match.dx(), spot[1] + match.dy());
    double[] image = new double[2];
    model.toImage(seenX, seenY, model.usesHeights() ? groundHeights.at(seenX, seenY) : 0, image);
    boolean known = !Double.isNaN(image[0]);
    double ground = groundHeights.at(x, y);
    return known
        ? Optional.of(
            new Found(x, y, ground, image[0], image[1], match.score(), lean(model, x, y, ground)))
        : Optional.empty();
  }

  /**
   * What stands above the height model leans in the scene as the scene's model tells, and in the reference away from where
   * that was seen from; a reference that does not say counts as seen from straight above.
   */
  private Found.Lean lean(ImageModel model, double x, double y, double height) {
    if (!model.usesHeights()) {
      return new Found.Lean(0, 0);
    }
    double[] at = new double[2];
    double[] above = new double[2];
    model.toImage(x, y, height, at);
    model.toImage(x - leanEast * RISE, y - leanNorth * RISE, height + RISE, above);
    return new Found.Lean((above[0] - at[0]) / RISE, (above[1] - at[1]) / RISE);
  }

  private static double holes(float[] pixels) {
    int holes = 0;
    for (float v : pixels) {
      holes += Float.isNaN(v) ? 1 : 0;
    }
    return (double) holes / pixels.length;
  }

  /** The best of each cell in turn, until there are enough. */
  private List<Found> spread(List<Found> found, int most) {
    Grid grid = reference.grid();
    Affine toPixel = grid.affine().inverse();
    List<List<Found>> cells = new ArrayList<>();
    for (int k = 0; k < CELLS * CELLS; k++) {
      cells.add(new ArrayList<>());
    }
    for (Found f : found) {
      int cx = (int) Math.min(CELLS - 1, toPixel.x(f.x(), f.y()) * CELLS / grid.width());
      int cy = (int) Math.min(CELLS - 1, toPixel.y(f.x(), f.y()) * CELLS / grid.height());
      cells.get(Math.max(0, cy) * CELLS + Math.max(0, cx)).add(f);
    }
    cells.forEach(c -> c.sort(Comparator.comparingDouble(Found::score).reversed()));
    List<Found> chosen = new ArrayList<>();
    for (int round = 0; chosen.size() < Math.min(most, found.size()); round++) {
      List<Found> next = new ArrayList<>();
      for (List<Found> cell : cells) {
        if (cell.size() > round) {
          next.add(cell.get(round));
        }
      }
      next.sort(Comparator.comparingDouble(Found::score).reversed());
      chosen.addAll(next.subList(0, Math.min(next.size(), most - chosen.size())));
    }
    return chosen;
  }
}
