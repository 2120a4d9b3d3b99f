package sharpkestrel.gather;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import sharpkestrel.geo.ControlPoints;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.Rpc;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Remarks;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Opens a file and says where its pixels lie, or what can be done where that is not known or cannot be. */
@StepInfo(
    id = "open",
    stage = Stage.GATHER,
    title = "Open",
    does =
        "Opens a raster file: GeoTIFF, PNG, JPEG, JPEG 2000 or a virtual raster, with what lies beside it. Says where it lies, what"
            + " is guessed of it, and what can be done where it has no place or cannot lie where it claims.")
public record OpenFile(
    @Setting(label = "File", does = "A raster file.", reads = RasterSources.class)
    Path file,

    @Setting(
        label = "Image",
        does =
            "Which of the images in a TIFF file, from 1; reduced copies and masks are not counted.",
        min = 1,
        initial = "1")
    int image,

    @Setting(
        label = "Palette",
        does =
            "Where the file has a table of colours: classes for its numbers, colours for three bands; auto: classes of a TIFF file,"
                + " colours of a picture.",
        initial = "auto")
    Optional<RasterFiles.Palette> palette)
    implements Step<Raster> {

  @Override
  public Raster run(Job job) {
    if (!Files.isRegularFile(file)) {
      throw new RasterException("There is no file " + file + ". Give the path of a raster file.");
    }
    Raster raster = RasterFiles.open(file, image, palette);
    Remarks.of(raster.attachments()).forEach(job::warn);
    guessed(raster).ifPresent(job::warn);
    doubt(raster).ifPresent(doubt -> job.warn(file.getFileName() + " " + doubt));
    return raster;
  }

  /** Which roles are guesses. */
  private static Optional<String> guessed(Raster raster) {
    List<String> guesses = raster.bands().stream()
        .filter(Band::roleGuessed)
        .map(band -> band.name() + " as " + band.role().label())
        .toList();
    return guesses.isEmpty()
        ? Optional.empty()
        : Optional.of("What the bands stand for is guessed from their number and order: "
            + String.join(", ", guesses) + ". Where it is otherwise, tell it (step describe).");
  }

  /** What is wrong with where a raster says that it lies, and what can be done; empty where nothing is. */
  static Optional<String> doubt(Raster raster) {
    Grid grid = raster.grid();
    Optional<Rpc> sensor = raster.attachments().get(Rpc.class);
    Optional<String> other = sensor.flatMap(rpc -> rpc.doubt(grid.width(), grid.height()));
    if (other.isPresent()) {
      return other;
    }
    Optional<ControlPoints> points = raster.attachments().get(ControlPoints.class);
    if (!grid.crs().isKnown() && points.isPresent()) {
      return Optional.of("has " + points.get().points().size()
          + " control points in place of a grid, so it is not placed yet. Warp it with them (step warp, the file itself as"
          + " its points).");
    }
    if (!grid.crs().isKnown()) {
      return sensor.isPresent()
          ? Optional.empty()
          : Optional.of(
              "has no place: neither a coordinate system nor a sensor model. Find tie points with a placed"
                  + " raster that shows the same ground, or put its RPC text beside it.");
    }
    if (grid.affine().equals(Affine.IDENTITY)) {
      return Optional.of(
          "names a coordinate system but not where its pixels lie in it. Put a world file beside it, or"
              + " find tie points with a placed raster.");
    }
    Crs crs = Crs.of(grid.crs());
    Extent extent = grid.extent();
    double[] corners = {
      extent.west(),
      extent.south(),
      extent.east(),
      extent.south(),
      extent.west(),
      extent.north(),
      extent.east(),
      extent.north()
    };
    double[] there = corners.clone();
    CoordinateMap toDegrees = crs.to(Crs.of(Crs.WGS84));
    toDegrees.apply(there, 4);
    double[] back = there.clone();
    Crs.of(Crs.WGS84).to(crs).apply(back, 4);
    for (int k = 0; k < 8; k += 2) {
      boolean onEarth = Math.abs(there[k]) <= 360 && Math.abs(there[k + 1]) <= 90;
      boolean returns = Math.hypot(back[k] - corners[k], back[k + 1] - corners[k + 1])
          < Math.max(grid.pixelSize(), 1e-9);
      if (!onEarth || !returns) {
        return Optional.of("cannot lie where it claims: "
            + extent
            + " is outside of "
            + crs.title()
            + ". Its coordinate system may be another, or its numbers in other units: find tie points with a placed"
            + " raster, or correct the file.");
      }
    }
    return Optional.empty();
  }
}
