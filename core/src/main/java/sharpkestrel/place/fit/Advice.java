package sharpkestrel.place.fit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import sharpkestrel.raster.RasterException;

/**
 * Which model to trust: of those that the points determine, the stiffest whose error at points left out is within
 * {@value #AS_GOOD} of the least.
 *
 * @param fits of every model that the points determine, the stiffest first
 * @param reason in words
 */
public record Advice(List<Fit> fits, Fit fit, String reason) {

  private static final double AS_GOOD = 1.1;
  /** With so many times the points it needs at the least, a model is held to be checked by them. */
  private static final double ENOUGH = 1.5;

  /**
   * @param overHeights whether a camera may be tried
   * @throws RasterException where the points determine no model at all
   */
  public static Advice of(Fitter fitter, boolean overHeights) {
    List<Fit> fits = new ArrayList<>();
    RasterException refused = null;
    for (ModelKind kind : ModelKind.values()) {
      if (kind == ModelKind.CAMERA && !(overHeights && fitter.mayBeACamera())
          || kind == ModelKind.UNCHANGED && !fitter.isPlaced()) {
        continue;
      }
      try {
        fits.add(fitter.fit(kind));
      } catch (LeastSquares.Undetermined fewer) {
        refused = refused == null ? fewer : refused;
      }
    }
    if (fits.stream().noneMatch(f -> f.kind() != ModelKind.UNCHANGED)) {
      throw refused;
    }
    return of(fits);
  }

  static Advice of(List<Fit> fits) {
    int points = fits.getFirst().controlPoints();
    List<Fit> checked = fits.stream()
        .filter(f -> !Double.isNaN(f.leftOut()) && points >= ENOUGH * f.kind().fewest())
        .toList();
    if (checked.stream().noneMatch(f -> f.kind() != ModelKind.UNCHANGED)) {
      Fit stiffest =
          fits.stream().filter(f -> f.kind() != ModelKind.UNCHANGED).findFirst().orElseThrow();
      return new Advice(
          fits,
          stiffest,
          "With " + points + (points == 1 ? " point" : " points")
              + " no model can be checked by leaving points out: "
              + stiffest.kind().label().toLowerCase(Locale.ROOT)
              + " errs least where there are none. Add points.");
    }
    double least = checked.stream().mapToDouble(Fit::leftOut).min().orElseThrow();
    Fit best =
        checked.stream().filter(f -> f.leftOut() <= AS_GOOD * least).findFirst().orElseThrow();
    return new Advice(fits, best, reason(checked, best));
  }

  private static String reason(List<Fit> checked, Fit best) {
    StringBuilder text = new StringBuilder();
    text.append(
        switch (best.kind()) {
          case CAMERA -> "A camera over the heights follows the relief";
          case UNCHANGED -> "It lies as well as any model would lay it";
          default -> best.kind().label() + " is the stiffest that errs little";
        });
    text.append(String.format(
        Locale.ROOT, ": %.2f px at points left out (fit %.2f).", best.leftOut(), best.rms()));
    checked.stream()
        .filter(f -> f != best && f.rms() < best.rms() && f.leftOut() > AS_GOOD * best.leftOut())
        .max((a, b) -> Double.compare(a.leftOut(), b.leftOut()))
        .ifPresent(bent -> text.append(String.format(
            Locale.ROOT,
            " %s comes nearer to its points (%.2f) but bends where there are none (%.2f).",
            bent.kind().label(),
            bent.rms(),
            bent.leftOut())));
    return text.toString();
  }
}
