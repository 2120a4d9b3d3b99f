package sharpkestrel.cli;

import java.util.Locale;
import sharpkestrel.check.Scores;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.objects.FeatureRanking;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.FindOffsets;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.sharpen.pan.PanModel;
import sharpkestrel.sharpen.pan.Ratings;
import sharpkestrel.sharpen.profile.ProfileReport;

/** A result in a few words. */
final class Descriptions {

  private Descriptions() {}

  static String of(Object result) {
    return switch (result) {
      case Raster raster ->
        String.format(
            Locale.ROOT,
            "%d x %d pixels of %.3g, %d band%s, %s%s",
            raster.grid().width(),
            raster.grid().height(),
            raster.grid().pixelSize(),
            raster.bands().size(),
            raster.bands().size() == 1 ? "" : "s",
            raster.bands().get(0).type().label(),
            raster
                    .attachments()
                    .get(SeamVisibility.class)
                    .map(Descriptions::seams)
                    .orElse("")
                + raster
                    .attachments()
                    .get(PanModel.class)
                    .filter(model -> model.gains().length == raster.bands().size())
                    .map(model -> sharpening(model, raster))
                    .orElse(""));
      case Cut cut ->
        String.format(
            Locale.ROOT,
            "%d objects from %d superpixels, grain %.4g m², height %.6g",
            cut.objects(),
            cut.tree().leaves(),
            cut.grain(),
            cut.height());
      case ObjectSet set -> set.count() + " objects, " + set.table().columns().size() + " features";
      case OutlineSet offsets
      when offsets.table().has(FindOffsets.OFF) -> offsets(offsets.table().values(FindOffsets.OFF));
      case OutlineSet outlines -> outlines.count() + " outlines";
      case TiePoints points ->
        points.points().size() + " tie points in " + points.coverage().size() + " of "
            + TiePoints.CELLS * TiePoints.CELLS + " cells of the scene";
      case MergingModel model -> model.about();
      case Scores scores -> scores.toText().lines().toList().get(1);
      case Ratings ratings -> "best: " + ratings.rows().get(0).title();
      case ProfileReport report -> report.profiles().size() + " profiles";
      case FeatureRanking ranking -> ranking.entries().size() + " features, the best first";
      default -> result.toString();
    };
  }

  private static String sharpening(PanModel model, Raster raster) {
    String weights = model.weightsText();
    return (weights.isEmpty() ? "" : ", weights " + weights)
        + (model.alignment().isNone()
            ? ""
            : ", bands moved by " + model.alignment().toText(raster.bands()));
  }

  private static String offsets(double[] off) {
    double squares = 0;
    double worst = 0;
    for (double each : off) {
      squares += each * each / off.length;
      worst = Math.max(worst, each);
    }
    return String.format(
        Locale.ROOT,
        "%d points; off by %.2f m RMS, CE90 %.2f m, at most %.2f m",
        off.length,
        Math.sqrt(squares),
        Fit.circularError90(Math.sqrt(squares)),
        worst);
  }

  private static String seams(SeamVisibility seams) {
    return String.format(
        Locale.ROOT,
        "; along its seams scenes differ by %.2f %% of the range of values, before by %.2f %% (%d blocks of %.0f m)",
        seams.after(),
        seams.before(),
        seams.blocks(),
        seams.metres());
  }
}
