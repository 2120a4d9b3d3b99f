package sharpkestrel.place.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.Fitter;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;

/**
 * Which matches to believe. Those that are wrong by chance agree with nobody. Those on roofs and crowns agree with each
 * other as well as those on the ground do, but lean the way that high things lean; and nothing lies under the ground.
 */
final class Agreement {

  private static final int ROUNDS = 12;
  /** What a match under the ground costs, in matches on it. */
  private static final double UNDERGROUND = 2;
  /** No roof is higher, metres, as far as it matters. */
  private static final double DEEPEST = 25;
  /** Share of matches that may lie under the ground by chance. */
  private static final double FEW_UNDER = 0.03;
  /** No match is measured better than this, pixels, so none nearer is left out. */
  private static final double SHARPEST = 0.3;

  private final ImageModel base;
  private final ModelKind kind;
  private final int width;
  private final int height;

  /**
   * @param kind of what corrects the base, or a camera in its place
   * @param width of the scene, pixels
   */
  Agreement(ImageModel base, ModelKind kind, int width, int height) {
    this.base = base;
    this.kind = kind;
    this.width = width;
    this.height = height;
  }

  Fit fit(List<Found> found) {
    return new Fitter(points(found), base).fitOnly(kind);
  }

  TiePoints points(List<Found> found) {
    List<TiePoint> points = new ArrayList<>();
    for (Found f : found) {
      points.add(new TiePoint(
          points.size() + 1,
          f.col(),
          f.row(),
          f.x(),
          f.y(),
          f.height(),
          TiePoint.Use.CONTROL,
          f.score()));
    }
    return new TiePoints(base.crs(), width, height, points);
  }

  /**
   * The largest set of matches that agree about how far the model is off: first with one of them to a few pixels, then
   * with the shift of all that do, or a plane through their shifts, ever closer.
   */
  List<Found> near(List<Found> found, ImageModel model, int level) {
    int n = found.size();
    double[] dx = new double[n];
    double[] dy = new double[n];
    double[] image = new double[2];
    for (int i = 0; i < n; i++) {
      Found f = found.get(i);
      model.toImage(f.x(), f.y(), model.usesHeights() ? f.height() : 0, image);
      dx[i] = f.col() - image[0];
      dy[i] = f.row() - image[1];
    }
    double tolerance = 1.5 * (1 << level) + 0.5;
    int[] best = {};
    double most = 0;
    for (int i = 0; i < n; i++) {
      int seed = i;
      int[] with = IntStream.range(0, n)
          .filter(k -> Math.hypot(dx[k] - dx[seed], dy[k] - dy[seed]) < tolerance)
          .toArray();
      double worth = with.length - UNDERGROUND * under(found, dx, dy, seed, tolerance);
      if (worth > most) {
        most = worth;
        best = with;
      }
    }
    for (int round = 0; round < 6 && best.length >= 6; round++) {
      int[] kept = best;
      double[] off = kind == ModelKind.SHIFT
          ? Trend.fromOneShift(kept, dx, dy)
          : Trend.fromAPlane(kept, dx, dy, i -> {
            Found f = found.get(i);
            return new double[] {f.col(), f.row()};
          });
      double[] lengths = Arrays.stream(kept).mapToDouble(i -> off[i]).sorted().toArray();
      double typical = lengths[lengths.length / 2];
      double limit = Math.max(0.35 * (1 << level), Math.min(tolerance, 2.8 * typical));
      best = IntStream.range(0, n).filter(i -> off[i] < limit).toArray();
    }
    return Arrays.stream(best).mapToObj(found::get).toList();
  }

  /**
   * How many matches would lie under the ground, if a match's shift were that of the ground. Roofs of a town agree with
   * each other as well as streets do, but nothing lies under the streets.
   */
  private static int under(
      List<Found> found, double[] dx, double[] dy, int seed, double tolerance) {
    int count = 0;
    for (int k = 0; k < dx.length; k++) {
      Found.Lean lean = found.get(k).lean();
      if (!lean.shows()) {
        continue;
      }
      double ex = dx[k] - dx[seed];
      double ey = dy[k] - dy[seed];
      double along = lean.along(ex, ey);
      boolean below = along < -tolerance && along > -DEEPEST * lean.length() - tolerance;
      count += below && lean.across(ex, ey) < tolerance ? 1 : 0;
    }
    return count;
  }

  /**
   * The matches that the model holds for: those far off it are left out, and it is fitted again, until none are. What
   * stands above the height model, such as quays and roofs, goes here.
   */
  List<Found> consistent(List<Found> found) {
    List<Found> kept = grounded(found);
    for (int round = 0; round < ROUNDS; round++) {
      Fit fit = fit(kept);
      double[] lengths =
          fit.residuals().stream().mapToDouble(Fit.Residual::length).toArray();
      double[] sorted = lengths.clone();
      Arrays.sort(sorted);
      double limit = Math.max(SHARPEST, 3 * sorted[sorted.length / 2]);
      List<Found> before = kept;
      List<Found> nearer = IntStream.range(0, lengths.length)
          .filter(i -> lengths[i] <= limit)
          .mapToObj(before::get)
          .toList();
      if (nearer.size() == kept.size() || nearer.size() < 2 * kind.fewest()) {
        break;
      }
      kept = nearer;
    }
    return kept;
  }

  /**
   * Of further matches those as near to the model of others as these are.
   *
   * @param kept those that the model is fitted to
   */
  List<Found> within(List<Found> further, List<Found> kept) {
    Fit fit = fit(kept);
    double[] lengths =
        fit.residuals().stream().mapToDouble(Fit.Residual::length).sorted().toArray();
    double limit = Math.max(SHARPEST, 3 * lengths[lengths.length / 2]);
    ImageModel model = fit.model();
    double[] image = new double[2];
    return further.stream()
        .filter(f -> {
          model.toImage(f.x(), f.y(), model.usesHeights() ? f.height() : 0, image);
          return Math.hypot(f.col() - image[0], f.row() - image[1]) <= limit;
        })
        .toList();
  }

  /**
   * The matches that lie on the ground. Where a wood or a town fills a part of the scene its crowns and roofs agree with
   * each other, and pull the model up so that true ground lies under it. As nothing does, the highest matches are left out, a
   * few at a time, until hardly any lies under the ground.
   */
  private List<Found> grounded(List<Found> found) {
    List<Found> kept = found;
    int least = Math.max(2 * kind.fewest(), found.size() / 4);
    while (true) {
      Fit fit = fit(kept);
      double[] up = new double[kept.size()];
      int under = 0;
      for (int i = 0; i < up.length; i++) {
        Found.Lean lean = kept.get(i).lean();
        Fit.Residual residual = fit.residuals().get(i);
        up[i] = lean.shows() ? -lean.along(residual.dx(), residual.dy()) : 0;
        under += up[i] < -SHARPEST ? 1 : 0;
      }
      double[] sorted = up.clone();
      Arrays.sort(sorted);
      double limit = Math.max(SHARPEST, sorted[sorted.length - 1 - up.length / 25]);
      List<Found> before = kept;
      List<Found> lower = IntStream.range(0, up.length)
          .filter(i -> up[i] < limit)
          .mapToObj(before::get)
          .toList();
      if (under <= FEW_UNDER * up.length || lower.size() == kept.size() || lower.size() < least) {
        return kept;
      }
      kept = lower;
    }
  }
}
