package sharpkestrel.workshop.fuzz;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.io.ArrowTable;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Layer;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePointFile;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.segment.learn.MergingModelFile;

/** Small good files of every kind, from which damaged ones are made. */
final class Seeds {

  private static final CrsName UTM = CrsName.epsg(32630);

  private Seeds() {}

  /**
   * Makes files of every kind in a folder.
   *
   * @param more folders of further ones, such as those that tests have
   */
  static List<Path> make(Path folder, List<Path> more) throws IOException {
    for (SampleType type : SampleType.values()) {
      for (Compression compression : Compression.values()) {
        Path file = folder.resolve(type + "-" + compression + ".tif");
        GeoTiffWriter.write(raster(type), file, compression, true, Job.QUIET);
      }
    }
    BufferedImage picture = new BufferedImage(40, 30, BufferedImage.TYPE_INT_RGB);
    ImageIO.write(picture, "png", folder.resolve("a.png").toFile());
    ImageIO.write(picture, "jpg", folder.resolve("a.jpg").toFile());
    Files.writeString(folder.resolve("a.vrt"), """
        <VRTDataset rasterXSize="40" rasterYSize="30"><SRS>EPSG:32630</SRS>
        <GeoTransform>512000, 0.5, 0, 6702000, 0, -0.5</GeoTransform>
        <VRTRasterBand dataType="Byte" band="1"><NoDataValue>0</NoDataValue><SimpleSource>
        <SourceFilename relativeToVRT="1">UINT8-NONE.tif</SourceFilename><SourceBand>1</SourceBand>
        <SrcRect xOff="0" yOff="0" xSize="40" ySize="30"/><DstRect xOff="0" yOff="0" xSize="40" ySize="30"/>
        </SimpleSource></VRTRasterBand></VRTDataset>""");
    Layer layer = layer();
    GeoPackage.write(layer, folder.resolve("a.gpkg"));
    new ArrowTable(layer.table(), Map.of("ground", "1,1"))
        .write(folder.resolve("a.arrow"), Job.QUIET);
    TiePointFile.write(points(), folder.resolve("a.geojson"));
    Files.writeString(folder.resolve("a.stac.json"), """
        {"type": "Feature", "id": "x", "properties": {"datetime": "2031-04-03T11:42:00Z", "view:sun_elevation": 30},
         "assets": {"pan-R1C1": {"href": "pan-R1C1.tif", "eo:bands": [{"name": "pan"}],
          "raster:bands": [{"scale": 0.1, "offset": 0}], "roles": ["data"]}}}""");
    Files.writeString(folder.resolve("a.sheet.json"), """
        {"title": "t", "variables": {"out": "x"}, "steps": [
         {"name": "a", "step": "open", "file": "a.tif"},
         {"name": "b", "step": "clip", "scene": "@a", "extent": [0, 0, 20, 20], "keep": true},
         {"name": "c", "step": "mosaic", "scenes": ["@a", "@b"]}]}""");
    MergingModelFile.write(MergingModelFile.ofRoofs(), folder.resolve("a.model.json"));
    Files.writeString(folder.resolve("a.rpc.txt"), sensorModel());
    List<String> formulas = List.of(
        "area > 60 AND NOT (area BETWEEN 1 AND 2 OR roof IN ('turf', 'slate'))",
        "-(area + 2) ^ 2 / 3 >= 1e-3 AND \"area\" IS NOT NULL");
    for (int i = 0; i < formulas.size(); i++) {
      Files.writeString(folder.resolve(i + ".cql2"), formulas.get(i), StandardCharsets.UTF_8);
    }
    List<Path> all = new ArrayList<>();
    for (Path each : Stream.concat(Stream.of(folder), more.stream()).toList()) {
      try (Stream<Path> files = Files.list(each)) {
        all.addAll(files.filter(Files::isRegularFile).sorted().toList());
      }
    }
    return all;
  }

  private static Raster raster(SampleType type) {
    float[][] planes = new float[2][40 * 30];
    List<Band> bands = new ArrayList<>();
    for (int b = 0; b < 2; b++) {
      for (int i = 0; i < planes[b].length; i++) {
        planes[b][i] = i % 17 == 0 ? Float.NaN : (i * 7 + b) % 100;
      }
      bands.add(new Band("b" + b, BandRole.OTHER, "", type, b == 0 ? Double.NaN : 3));
    }
    Grid grid = new Grid(40, 30, Affine.northUp(512_000, 6_702_000, 0.5), UTM);
    return new MemoryRaster(grid, bands, Attachments.NONE, planes);
  }

  private static Layer layer() {
    GeometryFactory shapes = new GeometryFactory();
    List<Geometry> all = new ArrayList<>();
    double[] area = new double[20];
    List<String> kinds = new ArrayList<>();
    for (int i = 0; i < area.length; i++) {
      all.add(shapes.toGeometry(new Envelope(i, i + 0.5, 0, 1)));
      area[i] = i;
      kinds.add(i % 2 == 0 ? "turf" : "slate");
    }
    Table table = new Table(
        area.length,
        List.of(
            new Table.Column("area", "Area", "m²", area),
            Table.Column.ofTexts("kind", "Kind", kinds)));
    return new Layer("roofs", UTM, all, table, Map.of());
  }

  private static TiePoints points() {
    List<TiePoint> all = new ArrayList<>();
    for (int i = 1; i < 6; i++) {
      all.add(new TiePoint(
          i, 7 * i, 5 * i, 512_000 + i, 6_702_000 - i, Double.NaN, TiePoint.Use.CONTROL, 0.9));
    }
    return new TiePoints(UTM, 40, 30, all);
  }

  private static String sensorModel() {
    StringBuilder text = new StringBuilder();
    for (String name : List.of("LINE", "SAMP", "LAT", "LONG", "HEIGHT")) {
      text.append(name).append("_OFF: 50\n").append(name).append("_SCALE: 50\n");
    }
    for (String part : List.of("LINE_NUM", "LINE_DEN", "SAMP_NUM", "SAMP_DEN")) {
      for (int k = 1; k <= 20; k++) {
        text.append(part).append("_COEFF_").append(k).append(": ").append(k == 1 ? 1 : 0.001 * k);
        text.append('\n');
      }
    }
    return text.toString();
  }
}
