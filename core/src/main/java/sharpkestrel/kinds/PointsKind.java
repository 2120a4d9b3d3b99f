package sharpkestrel.kinds;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import sharpkestrel.place.fit.TiePointFile;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Job;
import sharpkestrel.step.Step;
import sharpkestrel.step.Suits;

/** Tie points between a scene and the ground. */
final class PointsKind extends ResultKind<TiePoints> {

  PointsKind() {
    super(TiePoints.class, "a set of tie points");
  }

  @Override
  public String describe(TiePoints points) {
    return points.points().size() + " tie points in " + points.coverage().size() + " of "
        + TiePoints.CELLS * TiePoints.CELLS + " cells of the scene";
  }

  @Override
  public String note(TiePoints points) {
    return grouped(points.points().size()) + " points";
  }

  @Override
  public boolean suits(TiePoints points, Suits wanted) {
    return wanted != Suits.OUTLINES;
  }

  @Override
  public void digest(TiePoints points, Digest into, Job job) {
    into.add(points.toString());
  }

  @Override
  public List<String> endings() {
    return List.of(".geojson", ".json");
  }

  @Override
  public List<String> readEndings() {
    return List.of(".geojson", ".json", ".tif", ".tiff");
  }

  /** A raster file may hold control points in place of a grid. */
  @Override
  public TiePoints read(Path file, Job job) {
    return endsWith(file, ".tif") || endsWith(file, ".tiff")
        ? TiePointFile.ofControlPoints(file)
        : TiePointFile.read(file);
  }

  @Override
  public void write(TiePoints points, Path file, Delivery delivery, Job job) {
    TiePointFile.write(points, file);
  }

  @Override
  public Optional<Keeping<TiePoints>> keeping() {
    return Optional.of(new Keeping<>() {
      @Override
      public String folder() {
        return "points";
      }

      @Override
      public List<String> endings() {
        return List.of(".geojson");
      }

      @Override
      public TiePoints read(Path stem, Step<?> step, Job job) {
        return TiePointFile.read(with(stem, ".geojson"));
      }

      @Override
      public TiePoints write(TiePoints points, Path stem, Job job) {
        TiePointFile.write(points, with(stem, ".geojson"));
        return points;
      }
    });
  }
}
