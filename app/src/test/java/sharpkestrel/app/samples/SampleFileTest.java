package sharpkestrel.app.samples;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;

class SampleFileTest {

  private static final GeometryFactory SHAPES = new GeometryFactory();
  private static final CrsName METRES = CrsName.epsg(32630);

  @TempDir
  Path folder;

  private Path file(CrsName crs, List<Geometry> shapes, Table.Column... columns) {
    Path file = folder.resolve("samples.gpkg");
    GeoPackage.write(
        new Layer("samples", crs, shapes, new Table(shapes.size(), List.of(columns)), Map.of()),
        file);
    return file;
  }

  private static Table.Column texts(String name, String... texts) {
    return Table.Column.ofTexts(name, name, List.of(texts));
  }

  @Test
  void outlinesAndPointsBecomeSamplesWithTheirClasses() {
    List<Geometry> shapes = List.of(
        SHAPES.toGeometry(new Envelope(512_000, 512_010, 6_702_000, 6_702_020)),
        SHAPES.createPoint(new Coordinate(512_050, 6_702_050)));
    Path file = file(METRES, shapes, texts("class", "roof", "ground"), texts("note", "a", "b"));

    SampleFile.Read read = SampleFile.read(file, Job.QUIET);
    List<Sample> samples = read.on(new Ground(METRES, ""), "");

    assertThat(read.isPlain()).isTrue();
    assertThat(samples).extracting(Sample::ofClass).containsExactly("roof", "ground");
    assertThat(samples).extracting(Sample::scene).containsOnly("samples.gpkg");
    assertThat(samples.get(0).outline().equalsTopo(shapes.get(0))).isTrue();
    assertThat(samples.get(1).outline().getDimension()).isZero();
  }

  @Test
  void whatLiesInAnotherSystemIsPutWhereItBelongs() {
    CrsName degrees = CrsName.epsg(4326);
    Path file =
        file(degrees, List.of(SHAPES.createPoint(new Coordinate(-3, 60.5))), texts("kind", "mast"));

    Sample mast =
        SampleFile.read(file, Job.QUIET).on(new Ground(METRES, ""), "").getFirst();

    // the central meridian of the zone
    assertThat(mast.outline().getCoordinate().x).isCloseTo(500_000, within(0.01));
    assertThat(mast.ofClass()).isEqualTo("mast");
  }

  @Test
  void whatCannotBeTakenInIsSaidInWords() {
    List<Geometry> one = List.of(SHAPES.createPoint(new Coordinate(512_050, 6_702_050)));
    SampleFile.Read two =
        SampleFile.read(file(METRES, one, texts("a", "x"), texts("b", "y")), Job.QUIET);
    assertThat(two.isPlain()).isFalse();
    assertThat(two.on(new Ground(METRES, ""), "b"))
        .extracting(Sample::ofClass)
        .containsExactly("y");
    assertThatThrownBy(() -> two.on(new Ground(CrsName.NONE, "photo"), "a"))
        .hasMessageContaining("Place the scene first");
    SampleFile.Read bare = SampleFile.read(file(METRES, one), Job.QUIET);
    assertThatThrownBy(() -> bare.on(new Ground(METRES, ""), "")).hasMessageContaining("no class");
  }
}
