package sharpkestrel.app.samples;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.Samples;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/** Outlines or points with a class that come from a file. */
public final class SampleFile {

  private static final String USUAL = "class";

  private SampleFile() {}

  /** A file that has been read. */
  public record Read(Path file, OutlineSet outlines) {

    /** Columns of texts, of which one holds the class. */
    public List<String> columns() {
      return outlines.table().columns().stream()
          .filter(Table.Column::isText)
          .map(Table.Column::name)
          .toList();
    }

    /** Whether it is plain which of them does. */
    public boolean isPlain() {
      return columns().contains(USUAL) || columns().size() < 2;
    }

    /**
     * What it holds as samples on a ground.
     *
     * @param column that holds the class; empty where it is plain which
     * @throws RasterException where there are no classes, or where places are told in another way than the ground's
     */
    public List<Sample> on(Ground ground, String column) {
      Samples samples = Samples.of(outlines, column);
      boolean same = outlines.crs().equals(ground.crs());
      if (!same && !(outlines.crs().isKnown() && ground.crs().isKnown())) {
        throw new RasterException(
            file.getFileName() + " is in " + outlines.crs().text()
                + ", what is shown in " + ground.crs().text()
                + ": samples of one cannot be put on the other. Place the scene first, or give a file in its pixels.");
      }
      List<Geometry> shapes = samples.shapes();
      if (!same) {
        CoordinateMap map = Crs.of(outlines.crs()).to(Crs.of(ground.crs()));
        shapes = shapes.stream().map(map::of).toList();
      }
      List<Sample> taken = new ArrayList<>();
      for (int i = 0; i < shapes.size(); i++) {
        taken.add(new Sample(
            shapes.get(i),
            samples.classes().get(samples.classOf()[i]),
            file.getFileName().toString()));
      }
      return taken;
    }
  }

  /**
   * Reads a file, off the interface thread.
   *
   * @throws RasterException where it holds no outlines or points
   */
  public static Read read(Path file, Job job) {
    return new Read(file, (OutlineSet) ResultKinds.open(file, OutlineSet.class, job));
  }
}
