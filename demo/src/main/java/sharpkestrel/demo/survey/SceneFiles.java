package sharpkestrel.demo.survey;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicLong;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.sensor.Channel;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.RpcFit;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Json;
import sharpkestrel.io.RpcText;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** A scene as it is delivered: part files by row and column, a STAC item, RPC beside it as text. */
public final class SceneFiles {

  private static final int ROWS = 2;
  private static final int COLUMNS = 3;
  private static final String PAN = "pan";
  private static final String BANDS = "ms";

  private final Exposure exposure;
  private final Scene scene;
  private final Instrument instrument;
  private final String survey;
  private final Path folder;
  private final int size;

  /**
   * @param survey begins the item's identifier
   * @param folder of the delivery; its item is named after it
   */
  public SceneFiles(Exposure exposure, String survey, Path folder) {
    this.exposure = exposure;
    scene = exposure.scene();
    instrument = scene.instrument();
    this.survey = survey;
    this.folder = folder;
    size = scene.sensor().width();
  }

  /**
   * Writes it, item last.
   *
   * @param bias pixels, right and down, by which the delivered RPC is off
   */
  public void write(RpcFit fit, double[] bias, String progress, Job job) {
    Rpc delivered = fit.rpc().shifted(-bias[0], -bias[1]);
    if (hasPan()) {
      RpcText.write(delivered, folder.resolve("pan_RPC.TXT"));
    }
    int ratio = instrument.ratio();
    RpcText.write(ratio == 1 ? delivered : delivered.scaled(ratio), folder.resolve("ms_RPC.TXT"));
    int[] xs = edges(COLUMNS);
    int[] ys = edges(ROWS);
    AtomicLong done = new AtomicLong();
    for (int r = 0; r < ROWS; r++) {
      for (int c = 0; c < COLUMNS; c++) {
        Window part = new Window(xs[c], ys[r], xs[c + 1] - xs[c], ys[r + 1] - ys[r]);
        write(part, "-R" + (r + 1) + "C" + (c + 1) + ".tif", done, progress, job);
      }
    }
    writeItem(scene.acquisition(), fit.rpc());
  }

  private boolean hasPan() {
    return instrument.pan().isPresent();
  }

  private int[] edges(int parts) {
    int[] edges = new int[parts + 1];
    for (int i = 1; i < parts; i++) {
      edges[i] = (int) Math.round((double) size * i / parts / 64) * 64;
    }
    edges[parts] = size;
    return edges;
  }

  /** One part of the images: the bands' pixels are kept as they come with the panchromatic ones. */
  private void write(Window part, String name, AtomicLong done, String progress, Job job) {
    SampleType type = instrument.type();
    MadeRaster.Maker made = window -> {
      Window whole =
          new Window(part.x() + window.x(), part.y() + window.y(), window.width(), window.height());
      float[][] numbers = exposure.numbers(whole);
      job.progress(progress, done.addAndGet(window.area()), (long) size * size);
      int quality = instrument.answer().quality();
      return quality == 0 ? numbers : Squeezed.through(numbers, window, quality);
    };
    if (!hasPan()) {
      write(part.width(), part.height(), scene.bands(type), made, BANDS + name, job);
      return;
    }
    int msWidth = part.width() / instrument.ratio();
    int msHeight = part.height() / instrument.ratio();
    short[][] ms = new short[instrument.bands().size()][msWidth * msHeight];
    List<Band> pan = List.of(instrument.pan().orElseThrow().band(type));
    write(
        part.width(),
        part.height(),
        pan,
        window -> {
          float[][] numbers = made.make(window);
          keep(numbers, window, ms, msWidth);
          return numbers;
        },
        PAN + name,
        job);
    write(
        msWidth,
        msHeight,
        scene.bands(type),
        window -> kept(ms, window, msWidth),
        BANDS + name,
        job);
  }

  private void write(
      int width, int height, List<Band> bands, MadeRaster.Maker maker, String name, Job job) {
    GeoTiffWriter.write(
        new MadeRaster(Grid.ofPixels(width, height), bands, Attachments.NONE, maker),
        folder.resolve(name),
        Compression.DEFLATE,
        new QuietJob(job));
  }

  private void keep(float[][] made, Window pan, short[][] ms, int msWidth) {
    int ratio = instrument.ratio();
    int width = pan.width() / ratio;
    int height = pan.height() / ratio;
    for (int b = 0; b < ms.length; b++) {
      for (int y = 0; y < height; y++) {
        int to = (pan.y() / ratio + y) * msWidth + pan.x() / ratio;
        for (int x = 0; x < width; x++) {
          ms[b][to + x] = (short) made[b + 1][y * width + x];
        }
      }
    }
  }

  private static float[][] kept(short[][] ms, Window window, int msWidth) {
    float[][] planes = new float[ms.length][window.area()];
    for (int b = 0; b < ms.length; b++) {
      for (int y = 0; y < window.height(); y++) {
        for (int x = 0; x < window.width(); x++) {
          planes[b][y * window.width() + x] = ms[b][(window.y() + y) * msWidth + window.x() + x];
        }
      }
    }
    return planes;
  }

  private void writeItem(Acquisition acquisition, Rpc rpc) {
    ObjectNode root = Json.object();
    root.put("type", "Feature").put("stac_version", "1.0.0").put("id", survey + "-" + scene.name());
    root.putArray("stac_extensions")
        .add("https://stac-extensions.github.io/view/v1.0.0/schema.json")
        .add("https://stac-extensions.github.io/eo/v1.1.0/schema.json")
        .add("https://stac-extensions.github.io/raster/v1.1.0/schema.json");
    footprint(root, rpc);
    root.putObject("properties")
        .put("datetime", acquisition.time().toString())
        .put("gsd", instrument.gsd())
        .put("view:sun_elevation", acquisition.sunElevation())
        .put("view:sun_azimuth", acquisition.sunAzimuth())
        .put("view:off_nadir", acquisition.viewOffNadir())
        .put("view:azimuth", acquisition.viewAzimuth());
    root.putArray("links");
    ObjectNode assets = root.putObject("assets");
    for (String image : hasPan() ? List.of(PAN, BANDS) : List.of(BANDS)) {
      List<Channel> channels =
          image.equals(PAN) ? List.of(instrument.pan().orElseThrow()) : instrument.bands();
      for (int r = 1; r <= ROWS; r++) {
        for (int c = 1; c <= COLUMNS; c++) {
          asset(assets, image + "-R" + r + "C" + c, channels, acquisition);
        }
      }
    }
    Json.write(root, folder.resolve(folder.getFileName() + ".json"));
  }

  /** The corners of the image on the ground at the RPC's middle height. */
  private void footprint(ObjectNode root, Rpc rpc) {
    double[][] corners = {{0, 0}, {0, size}, {size, size}, {size, 0}, {0, 0}};
    double[] box = {180, 90, -180, -90};
    ObjectNode geometry = root.putObject("geometry").put("type", "Polygon");
    ArrayNode ring = geometry.putArray("coordinates").addArray();
    double[] ground = new double[2];
    for (double[] corner : corners) {
      rpc.toGround(corner[0], corner[1], rpc.heightOffset(), ground);
      ring.addArray().add(ground[0]).add(ground[1]);
      box[0] = Math.min(box[0], ground[0]);
      box[1] = Math.min(box[1], ground[1]);
      box[2] = Math.max(box[2], ground[0]);
      box[3] = Math.max(box[3], ground[1]);
    }
    ArrayNode bbox = root.putArray("bbox");
    for (double side : box) {
      bbox.add(side);
    }
  }

  private void asset(
      ObjectNode assets, String key, List<Channel> channels, Acquisition acquisition) {
    ObjectNode asset = assets.putObject(key);
    asset.put("href", "./" + key + ".tif").put("type", "image/tiff; application=geotiff");
    asset.putArray("roles").add("data");
    ArrayNode eo = asset.putArray("eo:bands");
    ArrayNode numbers = asset.putArray("raster:bands");
    for (Channel channel : channels) {
      ObjectNode light = eo.addObject().put("name", channel.name());
      ObjectNode number =
          numbers.addObject().put("data_type", instrument.type().name().toLowerCase(Locale.ROOT));
      acquisition.calibrationOf(channel.role()).ifPresent(calibration -> {
        light.put("solar_illumination", calibration.irradiance());
        number.put("scale", calibration.gain()).put("offset", calibration.offset());
      });
    }
  }
}
