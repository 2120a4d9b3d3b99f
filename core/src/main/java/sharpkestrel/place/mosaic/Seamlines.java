package sharpkestrel.place.mosaic;

import java.util.Optional;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Raster;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Suits;

/** What seams must keep clear of, and how the scenes are evened out along them. */
public record Seamlines(
    @In(
        does = "Outlines, such as those of buildings, that no seam may cut.",
        optional = true,
        ofPlace = true)
    Optional<OutlineSet> keepWhole,

    @In(
        does =
            "Surface model, one band in metres: with the terrain it tells what stands on the ground and how far that leans in"
                + " each scene, so that no seam cuts it.",
        optional = true,
        ofPlace = true,
        suits = {Suits.PLACED, Suits.ONE_BAND})
    Optional<Raster> surface,

    @In(
        does = "Height model of the terrain under the surface model.",
        optional = true,
        ofPlace = true,
        suits = {Suits.PLACED, Suits.ONE_BAND})
    Optional<Raster> heights,

    @Setting(
        label = "Clearance",
        does =
            "How far seams keep from those outlines where they can: as far as tall things lean in the scenes and the"
                + " outlines may be off.",
        unit = "m",
        min = 0,
        max = 500,
        initial = "8")
    double clearance,

    @Setting(
        label = "Level",
        does =
            "Distance from a seam over which slow differences of tone, such as light on slopes, are evened out between"
                + " both scenes; 0 for none.",
        unit = "m",
        min = 0,
        max = 10000,
        initial = "100")
    double level) {

  public Seamlines {
    if (surface.isPresent() && heights.isEmpty()) {
      throw new IllegalArgumentException(
          "A surface model is given without the terrain under it. Give the height model (--heights), or leave the surface"
              + " out.");
    }
  }
}
