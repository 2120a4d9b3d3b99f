package sharpkestrel.gather;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Jobs;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;

class OpenOutlinesTest {

  private static final GeometryFactory SHAPES = new GeometryFactory();

  private static Raster scene(CrsName crs, Affine affine) {
    return new MemoryRaster(
        new Grid(100, 80, affine, crs),
        List.of(Band.of(BandRole.OTHER, SampleType.UINT8)),
        Attachments.NONE,
        new float[1][8_000]);
  }

  private static OutlineSet points(CrsName crs, double... xy) {
    List<Geometry> points = new ArrayList<>();
    for (int k = 0; k < xy.length; k += 2) {
      points.add(SHAPES.createPoint(new Coordinate(xy[k], xy[k + 1])));
    }
    return new OutlineSet(crs, points, new Table(points.size(), List.of()));
  }

  /** Where the equator crosses the middle of a zone of the south, no series is needed to say where that is. */
  @Test
  void pointsInDegreesGetTheScenesCoordinates() {
    Raster scene = scene(CrsName.epsg(32735), new Affine(0.5, 0, 499_980, 0, -0.5, 10_000_010));

    OutlineSet laid = new OpenOutlines(points(Crs.WGS84, 27, 0), Optional.of(scene)).run(Job.QUIET);

    assertThat(laid.crs()).isEqualTo(CrsName.epsg(32735));
    Coordinate at = laid.outlines().getFirst().getCoordinate();
    assertThat(at.distance(new Coordinate(500_000, 10_000_000))).isLessThan(1e-3);
  }

  @Test
  void withoutASceneTheyStayAsTheyAre() {
    OutlineSet given = points(Crs.WGS84, 27, -1);

    assertThat(new OpenOutlines(given, Optional.empty()).run(Job.QUIET)).isSameAs(given);
  }

  @Test
  void whatLiesBesideTheSceneIsCounted() {
    Raster photo = scene(CrsName.NONE, Affine.IDENTITY);
    List<String> said = new ArrayList<>();

    OutlineSet laid = new OpenOutlines(
            points(CrsName.NONE, 10, 79, 101, 5, 50, 81), Optional.of(photo))
        .run(Jobs.warning(said));

    assertThat(laid.count()).isEqualTo(3);
    assertThat(said).singleElement().asString().startsWith("2 of 3 outlines lie beside the scene");
  }

  @Test
  void whatIsPlacedIsNotLaidOverPixels() {
    Raster photo = scene(CrsName.NONE, Affine.IDENTITY);

    assertThatThrownBy(
            () -> new OpenOutlines(points(Crs.WGS84, 27, -1), Optional.of(photo)).run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("cannot be laid over what is placed");
  }
}
