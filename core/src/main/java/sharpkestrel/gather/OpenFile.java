package sharpkestrel.gather;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.Rpc;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
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
        "Opens a raster file: GeoTIFF, or PNG or JPEG with a world file. Says where it lies, and what can be done where"
            + " it has no place or cannot lie where it claims.")
public record OpenFile(
    @Setting(label = "File", does = "A raster file.") Path file) implements Step<Raster> {

  @Override
  public Raster run(Job job) {
    if (!Files.isRegularFile(file)) {
      throw new RasterException("There is no file " + file + ". Give the path of a raster file.");
    }
    Raster raster = RasterFiles.open(file);
    doubt(raster).ifPresent(doubt -> job.warn(file.getFileName() + " " + doubt));
    return raster;
  }

  /** What is wrong with where a raster says that it lies, and what can be done; empty where nothing is. */
  static Optional<String> doubt(Raster raster) {
    Grid grid = raster.grid();
    Optional<Rpc> sensor = raster.attachments().get(Rpc.class);
    Optional<String> other = sensor.flatMap(rpc -> rpc.doubt(grid.width(), grid.height()));
    if (other.isPresent()) {
      return other;
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
