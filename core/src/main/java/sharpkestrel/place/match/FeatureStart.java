package sharpkestrel.place.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import sharpkestrel.geo.GridModel;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.place.GroundHeights;
import sharpkestrel.place.Heights;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.Fitter;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.PlaneFits;
import sharpkestrel.place.fit.PlaneMap;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

/**
 * A first model for a scene of which nothing is known: the similarity that most pairs of features agree on (random
 * samples of two; Fischler and Bolles 1981, CACM 24(6)), loosely at first because relief moves things about, then the wanted
 * model fitted to those pairs and to ever nearer ones. Where no similarity is agreed on, as between pictures from the side, it is an
 * affine map that pairs of leaning features agree on, and a projective one is fitted.
 *
 * @param model in the reference's system
 * @param kind of the model
 * @param uncertainty how far it may be off, pixels of the reference
 * @param points the pairs that the model holds for
 */
public record FeatureStart(ImageModel model, ModelKind kind, double uncertainty, TiePoints points) {

  private static final int SAMPLES = 4000;
  /** Share of the scene's side by which relief may move things. */
  private static final double LOOSE = 0.035;

  /** The same under a projective map. */
  private static final double CLOSE = 0.01;

  private static final int INCLINED_SAMPLES = 20_000;

  private static final int ENOUGH = 12;

  /** As many times as chance gives on average may agree in the best of many samples. */
  private static final double CHANCES = 4;

  public static FeatureStart of(
      Raster scene, Raster reference, Optional<Heights> heights, ModelKind kind, Job job) {
    job.progress("Looking for features", 0, 3);
    List<Features.Pair> pairs = Features.pairs(scene, reference, job);
    job.progress("Comparing features", 1, 3);
    double side = Math.max(scene.grid().width(), scene.grid().height());
    int[] alike = similar(pairs, LOOSE * side);
    ModelKind fitted = kind;
    if (alike.length < enough(pairs.size(), LOOSE)) {
      job.progress("Looking for features from the side", 1, 3);
      List<Features.Pair> leaning = Features.leaningPairs(scene, reference, job);
      int[] inclined = inclined(leaning, CLOSE * side);
      if (inclined.length >= enough(leaning.size(), CLOSE)) {
        pairs = leaning;
        alike = inclined;
        fitted = kind == ModelKind.CAMERA ? kind : ModelKind.PROJECTIVE;
      }
    }
    if (alike.length < (fitted == kind ? enough(pairs.size(), LOOSE) : ENOUGH)) {
      throw new RasterException("The scene and the reference have too few features in common: "
          + alike.length
          + " of "
          + pairs.size()
          + " pairs agree. Do they show the same ground? Set three points by hand, and the rest will be found from"
          + " them.");
    }
    Narrowed narrowed = narrowed(scene, reference, heights, fitted, pairs, alike, side);
    job.progress("Comparing features", 2, 3);
    double scale = scaleOf(pairs, alike);
    return new FeatureStart(
        narrowed.fit.model(),
        fitted,
        Math.max(12, 4 * narrowed.fit.rms() / scale),
        narrowed.points);
  }

  /** So many pairs agree by more than chance, where that spreads them over a square. */
  private static int enough(int pairs, double tolerance) {
    return ENOUGH + (int) (CHANCES * pairs * Math.PI * tolerance * tolerance);
  }

  /** The largest set of pairs found that one affine map holds for, then a projective one. */
  private static int[] inclined(List<Features.Pair> pairs, double tolerance) {
    int[] best = {};
    int n = pairs.size();
    if (n < ENOUGH) {
      return best;
    }
    double[][] from = new double[n][];
    double[][] to = new double[n][];
    for (int i = 0; i < n; i++) {
      Features.Pair p = pairs.get(i);
      from[i] = new double[] {p.referenceCol(), p.referenceRow()};
      to[i] = new double[] {p.col(), p.row()};
    }
    Random random = new Random(1);
    for (int k = 0; k < INCLINED_SAMPLES; k++) {
      int[] three = {random.nextInt(n), random.nextInt(n), random.nextInt(n)};
      if (crossed(from, three) < 50 * 50 || crossed(to, three) < 50 * 50) {
        continue;
      }
      int[] with = near(ModelKind.AFFINE, three, from, to, 2 * tolerance);
      best = with.length > best.length ? with : best;
    }
    for (int round = 0; round < 8 && best.length >= ENOUGH; round++) {
      best = near(ModelKind.PROJECTIVE, best, from, to, tolerance);
    }
    return best;
  }

  /** Twice the area of the triangle of three places. */
  private static double crossed(double[][] places, int[] three) {
    double[] a = places[three[0]];
    double[] b = places[three[1]];
    double[] c = places[three[2]];
    return Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]));
  }

  private static int[] near(
      ModelKind kind, int[] kept, double[][] from, double[][] to, double tolerance) {
    double[][] some = Arrays.stream(kept).mapToObj(i -> from[i]).toArray(double[][]::new);
    double[][] others = Arrays.stream(kept).mapToObj(i -> to[i]).toArray(double[][]::new);
    PlaneMap map;
    try {
      map = PlaneFits.fit(kind, some, others);
    } catch (RasterException undetermined) {
      return new int[0];
    }
    double[] xy = new double[2];
    return IntStream.range(0, from.length)
        .filter(i -> {
          map.apply(from[i][0], from[i][1], xy);
          return Math.hypot(xy[0] - to[i][0], xy[1] - to[i][1]) < tolerance;
        })
        .toArray();
  }

  private record Narrowed(Fit fit, TiePoints points) {}

  /** The largest set of pairs found that one similarity holds for. */
  private static int[] similar(List<Features.Pair> pairs, double tolerance) {
    int[] best = {};
    int n = pairs.size();
    if (n < 2) {
      return best;
    }
    Random random = new Random(1);
    for (int k = 0; k < SAMPLES; k++) {
      Features.Pair one = pairs.get(random.nextInt(n));
      Features.Pair two = pairs.get(random.nextInt(n));
      double u = two.referenceCol() - one.referenceCol();
      double v = two.referenceRow() - one.referenceRow();
      double x = two.col() - one.col();
      double y = two.row() - one.row();
      double squared = u * u + v * v;
      if (squared < 100 * 100) {
        continue;
      }
      double a = (x * u + y * v) / squared;
      double b = (y * u - x * v) / squared;
      double scale = Math.hypot(a, b);
      if (scale < 0.15 || scale > 6) {
        continue;
      }
      int[] with = IntStream.range(0, n)
          .filter(i -> {
            Features.Pair p = pairs.get(i);
            double du = p.referenceCol() - one.referenceCol();
            double dv = p.referenceRow() - one.referenceRow();
            double dx = p.col() - one.col() - (a * du - b * dv);
            double dy = p.row() - one.row() - (b * du + a * dv);
            return dx * dx + dy * dy < tolerance * tolerance;
          })
          .toArray();
      best = with.length > best.length ? with : best;
    }
    return best;
  }

  private static double scaleOf(List<Features.Pair> pairs, int[] alike) {
    double scene = 0;
    double reference = 0;
    Features.Pair first = pairs.get(alike[0]);
    for (int i : alike) {
      Features.Pair p = pairs.get(i);
      scene += Math.hypot(p.col() - first.col(), p.row() - first.row());
      reference += Math.hypot(
          p.referenceCol() - first.referenceCol(), p.referenceRow() - first.referenceRow());
    }
    return scene / reference;
  }

  /** Fits the model to the pairs that agree, then to those that lie near it, ever nearer. */
  private static Narrowed narrowed(
      Raster scene,
      Raster reference,
      Optional<Heights> heights,
      ModelKind kind,
      List<Features.Pair> pairs,
      int[] alike,
      double side) {
    Grid grid = reference.grid();
    Affine affine = grid.affine();
    GroundHeights ground = new GroundHeights(heights, grid.crs());
    List<TiePoint> all = new ArrayList<>();
    for (Features.Pair p : pairs) {
      double x = affine.x(p.referenceCol(), p.referenceRow());
      double y = affine.y(p.referenceCol(), p.referenceRow());
      all.add(new TiePoint(
          all.size(), p.col(), p.row(), x, y, ground.at(x, y), TiePoint.Use.CONTROL, 0));
    }
    boolean camera = kind == ModelKind.CAMERA;
    List<TiePoint> kept = Arrays.stream(alike)
        .mapToObj(all::get)
        .filter(p -> !camera || !Double.isNaN(p.height()))
        .toList();
    Fit fit = null;
    TiePoints points = null;
    double limit = LOOSE * side;
    for (int round = 0; round < 7; round++) {
      points = new TiePoints(grid.crs(), scene.grid().width(), scene.grid().height(), kept);
      fit = new Fitter(points, GridModel.of(grid)).fitOnly(kind);
      double[] lengths =
          fit.residuals().stream().mapToDouble(Fit.Residual::length).sorted().toArray();
      limit = Math.max(3, Math.min(limit, 3 * lengths[lengths.length / 2]));
      ImageModel model = fit.model();
      double near = limit;
      double[] image = new double[2];
      List<TiePoint> nearer = all.stream()
          .filter(p -> {
            model.toImage(p.x(), p.y(), p.height(), image);
            return Math.hypot(image[0] - p.col(), image[1] - p.row()) < near;
          })
          .toList();
      if (nearer.size() < ENOUGH) {
        break;
      }
      kept = nearer;
    }
    return new Narrowed(fit, points);
  }
}
