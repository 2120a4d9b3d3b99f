package sharpkestrel.place.mosaic;

import java.util.Optional;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Lays placed scenes together into one. */
@StepInfo(
    id = "mosaic",
    stage = Stage.PLACE,
    title = "Mosaic",
    does =
        "Lays placed scenes together into one: their tones made to agree, all at once, black collars left out, one rule"
            + " where they overlap. By default along seams that are seen least.")
public record Mosaic(
    @Setting(label = "Overlap", does = "What is shown where scenes overlap.", initial = "seams")
    Overlap overlap,

    @Setting(
        label = "Feather",
        does = "Width over which scenes blend into each other; 0 for none.",
        unit = "m",
        min = 0,
        max = 1000,
        initial = "4")
    double feather,

    @Group Block block,

    @Group Seamlines lines,

    @In(
        does =
            "Areas that each scene shows, as found by 'seams' and perhaps edited; without them seams are found.",
        optional = true)
    Optional<OutlineSet> seamAreas,

    @In(does = "What is shown; all else is left without data.", optional = true)
    Optional<OutlineSet> areaOfInterest)
    implements Step<Raster> {

  @Override
  public Raster run(Job job) {
    BalancedBlock balanced = BalancedBlock.of(block, job);
    if (overlap != Overlap.SEAMS) {
      if (seamAreas.isPresent()) {
        job.warn("The areas of the seams are not used: the rule for overlaps is another.");
      }
      return balanced.mosaic(
          overlap, Optional.empty(), areaOfInterest, feather, 0, Attachments.NONE);
    }
    OutlineSet shown = seamAreas.isPresent() ? seamAreas.get() : balanced.seams(lines, job);
    SeamVisibility visibility = balanced.visibility(shown, lines.level(), job);
    return balanced.mosaic(
        overlap,
        Optional.of(shown),
        areaOfInterest,
        feather,
        lines.level(),
        Attachments.NONE.with(SeamVisibility.class, visibility));
  }
}
