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
 * model fitted to those pairs and to ever nearer ones.
 *
 * @param model in the reference's system
 * @param uncertainty how far it may be off, pixels of the reference
 */
public record FeatureStart(ImageModel model, double uncertainty) {

  private static final int SAMPLES = 4000;
  /** Share of the scene's side by which relief may move things. */
  private static final double LOOSE = 0.035;

  private static final int ENOUGH = 12;

  public static FeatureStart of(
      Raster scene, Raster reference, Optional<Heights> heights, ModelKind kind, Job job) {
    job.progress("Looking for features", 0, 3);
    List<Features.Pair> pairs = Features.pairs(scene, reference, job);
    job.progress("Comparing features", 1, 3);
    double side = Math.max(scene.grid().width(), scene.grid().height());
    int[] alike = similar(pairs, LOOSE * side);
    if (alike.length < ENOUGH) {
      throw new RasterException("The scene and the reference have too few features in common: "
          + alike.length
          + " of "
          + pairs.size()
          + " pairs agree. Do they show the same ground? Set three points by hand, and the rest will be found from"
          + " them.");
    }
    Fit fit = narrowed(scene, reference, heights, kind, pairs, alike, side);
    job.progress("Comparing features", 2, 3);
    double scale = scaleOf(pairs, alike);
    return new FeatureStart(fit.model(), Math.max(12, 4 * fit.rms() / scale));
  }

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
  private static Fit narrowed(
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
    double limit = LOOSE * side;
    for (int round = 0; round < 7; round++) {
      TiePoints points =
          new TiePoints(grid.crs(), scene.grid().width(), scene.grid().height(), kept);
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
    return fit;
  }
}
