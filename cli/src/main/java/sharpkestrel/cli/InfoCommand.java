package sharpkestrel.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.CrsException;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.io.FileLayout;
import sharpkestrel.io.Json;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Remarks;
import sharpkestrel.raster.Statistics;

@Command(
    name = "info",
    description = "Says what a raster file holds.",
    mixinStandardHelpOptions = true)
final class InfoCommand implements Runnable {

  @Parameters(paramLabel = "FILE", description = "A GeoTIFF, PNG or JPEG file.")
  Path file;

  @Option(names = "--exact", description = "Statistics of every pixel instead of a reduced level.")
  boolean exact;

  @Option(names = "--json", description = "End the output with one JSON object.")
  boolean json;

  @Spec
  CommandSpec spec;

  @Override
  public void run() {
    PrintWriter out = spec.commandLine().getOut();
    Raster raster = RasterFiles.open(file);
    Grid grid = raster.grid();
    ObjectNode node = Json.object().put("file", file.toString());
    node.put("width", grid.width()).put("height", grid.height());
    line(out, "size", grid.width() + " x " + grid.height() + " pixels");
    raster.attachments().get(FileLayout.class).ifPresent(layout -> {
      line(
          out,
          "layout",
          layout.blocks() + ", " + layout.packing() + (layout.isBig() ? ", BigTIFF" : ""));
      line(out, "overviews", layout.overviews() == 0 ? "none" : "" + layout.overviews());
      node.put("overviews", layout.overviews());
    });
    place(out, node, raster);
    sensor(out, node, raster);
    statistics(out, node, raster);
    Remarks.of(raster.attachments()).forEach(remark -> line(out, "note", remark));
    if (json) {
      out.println(Json.line(node));
    }
    out.flush();
  }

  private void place(PrintWriter out, ObjectNode node, Raster raster) {
    Grid grid = raster.grid();
    line(
        out,
        "pixel size",
        String.format(
            Locale.ROOT,
            "%.6g x %.6g",
            grid.affine().pixelWidth(),
            grid.affine().pixelHeight()));
    node.put("pixel_width", grid.affine().pixelWidth());
    node.put("pixel_height", grid.affine().pixelHeight());
    if (!grid.crs().isKnown()) {
      line(
          out,
          "CRS",
          raster.attachments().get(Rpc.class).isPresent()
              ? "none: not placed yet; its sensor model can place it (step ortho)"
              : "none: the file does not say where it lies");
      node.putNull("crs");
    } else {
      String title;
      try {
        title = Crs.of(grid.crs()).title();
      } catch (CrsException unknown) {
        title = unknown.getMessage();
      }
      line(out, "CRS", grid.crs() + "  " + title);
      node.put("crs", grid.crs().text());
    }
    var extent = grid.extent();
    line(
        out,
        "extent",
        String.format(
            Locale.ROOT,
            "west %.3f  south %.3f  east %.3f  north %.3f",
            extent.west(),
            extent.south(),
            extent.east(),
            extent.north()));
    node.putArray("extent")
        .add(extent.west())
        .add(extent.south())
        .add(extent.east())
        .add(extent.north());
    raster
        .attachments()
        .get(VerticalDatum.class)
        .ifPresent(datum -> line(out, "heights", datum.label()));
  }

  private void sensor(PrintWriter out, ObjectNode node, Raster raster) {
    var rpc = raster.attachments().get(Rpc.class);
    node.put("rpc", rpc.isPresent());
    line(
        out,
        "RPC",
        rpc.map(r -> String.format(
                Locale.ROOT,
                "centre %.5f E %.5f N, heights %.0f to %.0f m",
                r.longitudeOffset(),
                r.latitudeOffset(),
                r.heightOffset() - r.heightScale(),
                r.heightOffset() + r.heightScale()))
            .orElse("none"));
    raster
        .attachments()
        .get(Acquisition.class)
        .ifPresent(a -> line(
            out,
            "acquired",
            String.format(
                Locale.ROOT,
                "%s, sun %.1f° high at %.1f°, view %.1f° off nadir",
                a.time(),
                a.sunElevation(),
                a.sunAzimuth(),
                a.viewOffNadir())));
  }

  private void statistics(PrintWriter out, ObjectNode node, Raster raster) {
    int level = 0;
    while (!exact
        && raster.grid().atLevel(level).pixels() > 4_000_000
        && level < raster.levels() - 1) {
      level++;
    }
    Statistics[] statistics = Statistics.of(raster, level, Job.QUIET);
    line(
        out,
        "statistics",
        level == 0 ? "of every pixel" : "of level 1:" + (1 << level) + " (--exact reads all)");
    out.printf(
        "  %-16s %-14s %-15s %12s %12s %12s %12s %8s%n",
        "band", "role", "type", "min", "max", "mean", "spread", "no-data");
    ArrayNode bands = node.putArray("bands");
    for (int b = 0; b < statistics.length; b++) {
      Band band = raster.bands().get(b);
      Statistics s = statistics[b];
      double share =
          100.0 * (1 - (double) s.valid() / raster.grid().atLevel(level).pixels());
      out.printf(
          Locale.ROOT,
          "  %-16s %-14s %-15s %12.6g %12.6g %12.6g %12.6g %6.1f %%%n",
          band.name(),
          band.role().label(),
          band.type().label(),
          s.min(),
          s.max(),
          s.mean(),
          s.standardDeviation(),
          share);
      ObjectNode each =
          bands.addObject().put("name", band.name()).put("role", band.role().label());
      each.put("type", band.type().label()).put("valid", s.valid());
      if (s.valid() > 0) {
        each.put("min", s.min()).put("max", s.max()).put("mean", s.mean());
        each.put("standard_deviation", s.standardDeviation());
      }
      if (!Double.isNaN(band.noData())) {
        each.put("no_data", band.noData());
      }
    }
  }

  private static void line(PrintWriter out, String name, String text) {
    out.printf("%-11s %s%n", name, text);
  }
}
