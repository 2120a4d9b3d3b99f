package sharpkestrel.place;

import java.util.Optional;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Resampling;
import sharpkestrel.step.Setting;

/** Which pixels a step that places scenes makes, and how their values are found. */
public record ResultGrid(
    @Setting(
        label = "Coordinate system",
        does =
            "EPSG code or well-known text of the result; auto takes that of the height model, the reference, the points or the"
                + " first scene.",
        initial = "auto")
    CrsName crs,

    @Setting(
        label = "Area",
        does = "West, south, east, north of the result; auto takes what is covered.",
        initial = "auto")
    Optional<Extent> extent,

    @Setting(
        label = "Pixel size",
        does =
            "Side of a pixel of the result; auto takes the reference's or the first scene's, of a raw scene its own to two digits.",
        unit = "m",
        min = 0.01,
        max = 1000,
        initial = "auto")
    double pixelSize,

    @Setting(
        label = "Resampling",
        does = "How values between the pixels of a scene are found.",
        initial = "cubic")
    Resampling resampling) {

  public ResultGrid {
    if (pixelSize <= 0) {
      throw new IllegalArgumentException("Pixel size must be above 0 m, not " + pixelSize + ".");
    }
  }
}
