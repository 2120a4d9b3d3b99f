package sharpkestrel.sharpen;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.sharpen.pan.Pair;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Suits;

/** The two scenes of pan-sharpening and how they relate. */
public record PanInputs(
    @In(
        does = "The panchromatic scene, placed.",
        suits = {Suits.PLACED, Suits.ONE_BAND})
    Raster pan,

    @In(
        does = "The multispectral scene, placed in the same coordinate system.",
        suits = {Suits.PLACED, Suits.SEVERAL_BANDS})
    Raster multispectral,

    @Setting(
        label = "Contrast",
        does =
            "Contrast that the multispectral sensor keeps of the finest waves that its pixels can show; by it the"
                + " panchromatic band is blurred to what that sensor sees.",
        min = 0.05,
        max = 0.95,
        initial = "0.3")
    double contrast,

    @Setting(
        label = "Align bands",
        does =
            "Whether bands that lie off the panchromatic one by part of a pixel are moved onto it; how far is measured.",
        initial = "true")
    boolean align) {

  /** Scenes of one pass are taken within so long. */
  private static final Duration TOGETHER = Duration.ofMinutes(2);

  /** With the contrast that most sensors keep, bands aligned. */
  public static PanInputs of(Raster pan, Raster multispectral) {
    return new PanInputs(pan, multispectral, 0.3, true);
  }

  /** Warns where both were not taken together. */
  Pair pair(Job job) {
    Optional<Instant> ofPan = Acquisition.timeOf(pan.attachments());
    Optional<Instant> ofBands = Acquisition.timeOf(multispectral.attachments());
    if (ofPan.isPresent()
        && ofBands.isPresent()
        && Duration.between(ofPan.get(), ofBands.get()).abs().compareTo(TOGETHER) > 0) {
      job.warn("The panchromatic scene was taken at " + ofPan.get()
          + ", the multispectral one at " + ofBands.get()
          + ": what moved or changed between them gets wrong colours.");
    }
    return Pair.of(pan, multispectral);
  }
}
