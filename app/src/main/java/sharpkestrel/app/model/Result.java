package sharpkestrel.app.model;

import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import sharpkestrel.check.Scores;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.Placement;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.step.Stage;

/**
 * One result of the project and how it was made.
 *
 * @param inputs for each input of the step, the result it came from
 * @param files for each input that came from a file, its name
 * @param made tells the result from others by all that made it
 */
public record Result(
    String name,
    String title,
    StepSpec step,
    Map<String, Result> inputs,
    Map<String, String> files,
    Map<String, String> settings,
    Object value,
    Origin.Fingerprint made) {

  public Stage stage() {
    return step.stage();
  }

  /** A few words for the trail. */
  public String note() {
    return switch (value) {
      case Raster raster
      when stage() == Stage.PLACE && raster.attachments().get(Placement.class).isPresent() ->
        String.format(
            java.util.Locale.ROOT,
            "%.2f px RMS",
            raster.attachments().get(Placement.class).get().rms());
      case Raster raster
      when raster.attachments().get(SeamVisibility.class).isPresent() ->
        String.format(
            java.util.Locale.ROOT,
            "seams %.1f %%",
            raster.attachments().get(SeamVisibility.class).get().after());
      case Raster raster ->
        raster.bands().size() == 1
            ? raster.bands().get(0).role().label()
            : raster.bands().size() + " bands";
      case Cut cut -> grouped(cut.objects()) + " objects";
      case ObjectSet set -> grouped(set.count()) + " objects";
      case OutlineSet outlines -> grouped(outlines.count()) + " outlines";
      case TiePoints points -> grouped(points.points().size()) + " points";
      case MergingModel model -> "merging model";
      case Scores scores -> String.format(java.util.Locale.ROOT, "F1 %.2f", scores.f1());
      default -> "written";
    };
  }

  /** Whole numbers in groups of three. */
  public static String grouped(long number) {
    return String.format(java.util.Locale.ROOT, "%,d", number).replace(',', '\u2009');
  }

  /** The raster this shows under its objects: its own, or that of the nearest ancestor. */
  public Raster backdrop() {
    if (value instanceof Raster raster) {
      return raster;
    }
    // of a scene and what was measured on it the scene, whichever was given first
    return Stream.concat(
            Stream.of("scene", "objects", "outlines").map(inputs::get), inputs.values().stream())
        .filter(Objects::nonNull)
        .map(Result::backdrop)
        .filter(Objects::nonNull)
        .findFirst()
        .orElse(null);
  }

  public boolean descendsFrom(Result other) {
    return inputs.values().stream()
        .anyMatch(input -> input.name().equals(other.name()) || input.descendsFrom(other));
  }

  /** The same result made again. */
  Result remade(Map<String, Result> newInputs, Object newValue, Origin.Fingerprint newMade) {
    return new Result(name, title, step, newInputs, files, settings, newValue, newMade);
  }
}
