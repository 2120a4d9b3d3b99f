package sharpkestrel.workshop.fuzz;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.io.ArrowTable;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiff;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.io.RpcText;
import sharpkestrel.io.StacItem;
import sharpkestrel.place.fit.TiePointFile;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.learn.MergingModelFile;

/** Readers of files that come from outside, each as a person's work calls it. */
enum Reader {
  TIFF(false, ".tif") {
    @Override
    void read(Path file) {
      pixels(RasterFiles.open(file));
    }
  },
  LABELS(false, ".tif") {
    @Override
    void read(Path file) {
      var labels = GeoTiff.open(file).labels();
      labels.read(new Window(0, 0, 40, 40), new int[1600]);
    }
  },
  PICTURE(false, ".png", ".jpg", ".jp2") {
    @Override
    void read(Path file) {
      pixels(RasterFiles.open(file));
    }
  },
  VIRTUAL(true, ".vrt") {
    @Override
    void read(Path file) {
      pixels(RasterFiles.open(file));
    }
  },
  GEOPACKAGE(false, ".gpkg") {
    @Override
    void read(Path file) {
      GeoPackage.read(file, "");
    }
  },
  ARROW(false, ".arrow") {
    @Override
    void read(Path file) {
      ArrowTable.read(file, Job.QUIET);
    }
  },
  TIE_POINTS(true, ".geojson") {
    @Override
    void read(Path file) {
      TiePointFile.read(file);
    }
  },
  ITEM(true, ".stac.json") {
    @Override
    void read(Path file) {
      StacItem.read(file);
    }
  },
  SHEET(true, ".sheet.json") {
    @Override
    void read(Path file) {
      RunSheet.read(file);
    }
  },
  MODEL(true, ".model.json") {
    @Override
    void read(Path file) {
      MergingModelFile.read(file);
    }
  },
  SENSOR_MODEL(true, ".rpc.txt") {
    @Override
    void read(Path file) {
      RpcText.read(file);
    }
  },
  FORMULA(true, ".cql2") {
    @Override
    void read(Path file) throws IOException {
      Table table = new Table(
          2,
          List.of(
              new Table.Column("area", "Area", "m²", new double[] {1, Double.NaN}),
              Table.Column.ofTexts("roof", "Roof", List.of("turf", "slate"))));
      var formula = Cql2.parse(new String(Files.readAllBytes(file), StandardCharsets.UTF_8));
      Cql2.parse(formula.toText());
      formula.evaluate(table);
    }
  };

  final boolean text;
  final List<String> endings;

  Reader(boolean text, String... endings) {
    this.text = text;
    this.endings = List.of(endings);
  }

  abstract void read(Path file) throws IOException;

  private static void pixels(Raster raster) {
    Window corner = new Window(0, 0, 40, 40);
    raster.read(0, corner, Request.BACKGROUND);
    if (raster.grid().pixels() < 1_000_000) {
      raster.read(raster.levels() - 1, corner, Request.BACKGROUND);
    }
  }
}
