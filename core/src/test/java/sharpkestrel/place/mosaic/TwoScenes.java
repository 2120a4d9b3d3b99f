package sharpkestrel.place.mosaic;

import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.place.ResultGrid;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.SampleType;

/** Two scenes of one ground, the second 120 m further east: 240 m of each lie in both. */
final class TwoScenes {

  private TwoScenes() {}

  static final CrsName UTM = CrsName.epsg(32630);
  static final int WIDTH = 360;
  static final int HEIGHT = 260;
  static final Grid ONE = new Grid(WIDTH, HEIGHT, Affine.northUp(512_000, 6_702_000, 1), UTM);
  static final Grid TWO = new Grid(WIDTH, HEIGHT, Affine.northUp(512_120, 6_702_000, 1), UTM);
  static final GeometryFactory GEOMETRY = new GeometryFactory();

  /** What the ground is like; the same for both scenes. */
  static double ground(double x, double y) {
    return 400
        + 90 * Math.sin(x / 23) * Math.cos(y / 31)
        + 60 * Math.sin(x / 5.3 + y / 7.1)
        + 120 * Math.max(0, Math.sin(x / 90));
  }

  interface Changed {
    double to(double value, double x, double y);
  }

  static Raster scene(Grid grid, Changed changed) {
    return Made.on(
        grid,
        SampleType.UINT16,
        (b, col, row) -> {
          double x = grid.affine().x(col + 0.5, row + 0.5) - 512_000;
          double y = 6_702_000 - grid.affine().y(col + 0.5, row + 0.5);
          return Math.rint(changed.to(ground(x, y) * (b + 1), x, y));
        },
        BandRole.RED,
        BandRole.NEAR_INFRARED);
  }

  static Block block(Balance balance, int trend, Raster... scenes) {
    return block(balance, trend, Optional.empty(), scenes);
  }

  static Block block(Balance balance, int trend, Optional<OutlineSet> leftOut, Raster... scenes) {
    return new Block(
        List.of(scenes),
        leftOut,
        balance,
        1,
        trend,
        List.of(),
        new ResultGrid(CrsName.NONE, Optional.empty(), Double.NaN, Resampling.CUBIC));
  }

  static OutlineSet areas(double[] scenes, Geometry... areas) {
    return new OutlineSet(
        UTM,
        List.of(areas),
        new Table(areas.length, List.of(new Table.Column("scene", "Scene", "", scenes))));
  }

  static Geometry box(double west, double south, double east, double north) {
    return GEOMETRY.toGeometry(
        new Envelope(512_000 + west, 512_000 + east, 6_702_000 + south, 6_702_000 + north));
  }

  /** The same scene with the direction it was taken from. */
  static Raster taken(Raster raster, double offNadir, double azimuth) {
    Acquisition acquisition =
        new Acquisition(java.time.Instant.EPOCH, 40, 180, offNadir, azimuth, java.util.Map.of());
    return new MemoryRaster(
        raster.grid(),
        raster.bands(),
        Attachments.NONE.with(Acquisition.class, acquisition),
        Made.samples(raster));
  }
}
