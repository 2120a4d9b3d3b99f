package sharpkestrel.demo;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Json;
import sharpkestrel.io.Layer;
import sharpkestrel.io.RpcText;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** Writes a survey to disk: the delivery in six parts, the terrain model, and the truth. */
public final class SurveyMaker {

  private static final int ROWS = 2;
  private static final int COLUMNS = 3;
  private static final int BLOCK = 256;
  private static final int SKETCH = 8;

  private final World world;
  private final Survey survey;

  private SurveyMaker(World world, Survey survey) {
    this.world = world;
    this.survey = survey;
  }

  /** Makes a survey where it is not yet whole, and says where it is. */
  public static Survey make(Path parent, long seed, int size, Job job) {
    return make(parent, seed, size, look -> {}, job);
  }

  /** A survey that is there already, whole. */
  public static Optional<Survey> find(Path parent, long seed, int size) {
    return Optional.of(Survey.in(parent, seed, size)).filter(Survey::isComplete);
  }

  /**
   * @param quickLook given a coarse picture of the raw scene at once, before the survey is made; not called where it is
   *     there already
   */
  public static Survey make(Path parent, long seed, int size, Consumer<Raster> quickLook, Job job) {
    Survey survey = Survey.in(parent, seed, size);
    if (!survey.isComplete()) {
      World world = new World(seed, size);
      SurveyMaker maker = new SurveyMaker(world, survey);
      quickLook.accept(maker.quickLook());
      maker.write(job);
    }
    return survey;
  }

  private Raster quickLook() {
    int side = world.size() / SKETCH;
    List<Band> bands = Arrays.stream(Renderer.ROLES)
        .map(role -> Band.of(role, SampleType.FLOAT32))
        .toList();
    Attachments attachments = Attachments.NONE.with(Rpc.class, RpcFit.of(world).scaled(SKETCH));
    return new MemoryRaster(
        Grid.ofPixels(side, side), bands, attachments, new Renderer(world).sketch(SKETCH));
  }

  private void write(Job job) {
    writeHeights(job);
    Rpc rpc = RpcFit.of(world);
    Path scene = survey.item().getParent();
    RpcText.write(rpc, scene.resolve("pan_RPC.TXT"));
    RpcText.write(rpc.scaled(Renderer.MS_RATIO), scene.resolve("ms_RPC.TXT"));
    Renderer renderer = new Renderer(world);
    writeTruth();
    writeParts(renderer, job);
    writeItem(renderer.acquisition());
    Json.write(
        Json.object()
            .put("survey", "Fenwrack Sound")
            .put("seed", world.seed())
            .put("size", world.size())
            .put("undulation", World.UNDULATION)
            .put("buildings", world.buildings()),
        survey.marker());
  }

  private int[] edges(int parts) {
    int[] edges = new int[parts + 1];
    for (int i = 1; i < parts; i++) {
      edges[i] = (int) Math.round((double) world.size() * i / parts / 64) * 64;
    }
    edges[parts] = world.size() / Renderer.MS_RATIO * Renderer.MS_RATIO;
    return edges;
  }

  private void writeParts(Renderer renderer, Job job) {
    int[] xs = edges(COLUMNS);
    int[] ys = edges(ROWS);
    for (int r = 0; r < ROWS; r++) {
      for (int c = 0; c < COLUMNS; c++) {
        Window part = new Window(xs[c], ys[r], xs[c + 1] - xs[c], ys[r + 1] - ys[r]);
        float[][] planes = render(renderer, part, job, r * COLUMNS + c);
        String name = "-R" + (r + 1) + "C" + (c + 1) + ".tif";
        Path folder = survey.item().getParent();
        save(
            List.of(BandRole.PAN),
            part.width(),
            part.height(),
            new float[][] {planes[0]},
            folder.resolve("pan" + name),
            job);
        float[][] ms = java.util.Arrays.copyOfRange(planes, 1, planes.length);
        save(
            List.of(Renderer.ROLES),
            part.width() / Renderer.MS_RATIO,
            part.height() / Renderer.MS_RATIO,
            ms,
            folder.resolve("ms" + name),
            job);
      }
    }
  }

  private float[][] render(Renderer renderer, Window part, Job job, int index) {
    int across = Math.ceilDiv(part.width(), BLOCK);
    int down = Math.ceilDiv(part.height(), BLOCK);
    int msWidth = part.width() / Renderer.MS_RATIO;
    float[][] planes = new float[1 + Material.BANDS][];
    planes[0] = new float[part.area()];
    for (int b = 1; b < planes.length; b++) {
      planes[b] = new float[msWidth * (part.height() / Renderer.MS_RATIO)];
    }
    java.util.concurrent.atomic.AtomicInteger done =
        new java.util.concurrent.atomic.AtomicInteger();
    Parallel.run(across * down, job, i -> {
      Window block = new Window(
              part.x() + i % across * BLOCK, part.y() + i / across * BLOCK, BLOCK, BLOCK)
          .intersect(part);
      float[][] made = renderer.render(block);
      sharpkestrel.raster.Planes.copy(made[0], block, planes[0], part);
      for (int b = 1; b < planes.length; b++) {
        sharpkestrel.raster.Planes.copy(made[b], quarter(block), planes[b], quarter(part));
      }
      job.progress(
          "Photographing Fenwrack Sound",
          (long) index * across * down + done.incrementAndGet(),
          (long) ROWS * COLUMNS * across * down);
    });
    return planes;
  }

  private static Window quarter(Window w) {
    int k = Renderer.MS_RATIO;
    return new Window(w.x() / k, w.y() / k, w.width() / k, w.height() / k);
  }

  private static void save(
      List<BandRole> roles, int width, int height, float[][] planes, Path path, Job job) {
    List<Band> bands =
        roles.stream().map(role -> Band.of(role, SampleType.UINT16)).toList();
    MemoryRaster raster =
        new MemoryRaster(Grid.ofPixels(width, height), bands, Attachments.NONE, planes);
    GeoTiffWriter.write(raster, path, Compression.DEFLATE, job);
  }

  private void writeHeights(Job job) {
    Terrain terrain = world.terrain();
    Grid grid = new Grid(
        terrain.width,
        terrain.height,
        // nodes are points: the pixel around one begins half a step before it
        Affine.northUp(
            terrain.west - Terrain.STEP / 2, terrain.north + Terrain.STEP / 2, Terrain.STEP),
        RpcFit.GRID_CRS);
    Band band = new Band("height", BandRole.HEIGHT, "m", SampleType.FLOAT32, -9999);
    GeoTiffWriter.write(
        new MemoryRaster(
            grid,
            List.of(band),
            Attachments.NONE.with(VerticalDatum.class, VerticalDatum.GEOID),
            new float[][] {terrain.nodes()}),
        survey.heights(),
        Compression.ZSTD,
        job);
  }

  private void writeTruth() {
    Truth truth = new Truth(world);
    List<Truth.Roof> roofs = truth.roofs();
    roofLayer(roofs, Truth.Roof::ortho, RpcFit.GRID_CRS, 1, survey.roofsInOrtho());
    roofLayer(
        roofs, Truth.Roof::raw, CrsName.NONE, World.PAN_GSD * World.PAN_GSD, survey.roofsInRaw());
    roofLayer(
        roofs,
        Truth.Roof::footprint,
        RpcFit.GRID_CRS,
        1,
        survey.folder().resolve("truth/footprints.gpkg"));
    ObjectNode root = Json.object().put("crs", RpcFit.GRID_CRS.text());
    ArrayNode marks = root.putArray("marks");
    double[] image = new double[2];
    for (double[] mark : world.marks()) {
      Coordinate at = truth.inImage(mark);
      image[0] = at.x;
      image[1] = at.y;
      marks
          .addObject()
          .put("east", mark[0])
          .put("north", mark[1])
          .put("height", mark[2])
          .put("ellipsoidal_height", mark[2] + World.UNDULATION)
          .put("column", image[0])
          .put("row", image[1]);
    }
    Json.write(root, survey.checkPoints());
  }

  private static void roofLayer(
      List<Truth.Roof> roofs,
      Function<Truth.Roof, Geometry> which,
      CrsName crs,
      double unitArea,
      Path path) {
    List<Geometry> shapes = roofs.stream().map(which).toList();
    double[] area = shapes.stream().mapToDouble(g -> g.getArea() * unitArea).toArray();
    double[] id = roofs.stream().mapToDouble(Truth.Roof::building).toArray();
    double[] whole = roofs.stream().mapToDouble(r -> r.whole() ? 1 : 0).toArray();
    List<String> materials = new ArrayList<>();
    for (Truth.Roof roof : roofs) {
      materials.add(roof.material().name().toLowerCase(Locale.ROOT).replace("_roof", ""));
    }
    Table table = new Table(
        roofs.size(),
        List.of(
            new Table.Column("building", "Building", "", id),
            new Table.Column("area", "Area", "m²", area),
            new Table.Column("whole", "Whole in the scene", "", whole),
            Table.Column.ofTexts("material", "Material", materials)));
    GeoPackage.write(new Layer("roofs", crs, shapes, table, java.util.Map.of()), path);
  }

  private void writeItem(Acquisition acquisition) {
    ObjectNode root = Json.object();
    root.put("type", "Feature").put("stac_version", "1.0.0").put("id", "fenwrack-sound-scene-one");
    root.putArray("stac_extensions")
        .add("https://stac-extensions.github.io/view/v1.0.0/schema.json")
        .add("https://stac-extensions.github.io/eo/v1.1.0/schema.json")
        .add("https://stac-extensions.github.io/raster/v1.1.0/schema.json");
    root.putNull("geometry");
    root.putObject("properties")
        .put("datetime", acquisition.time().toString())
        .put("view:sun_elevation", acquisition.sunElevation())
        .put("view:sun_azimuth", acquisition.sunAzimuth())
        .put("view:off_nadir", acquisition.viewOffNadir())
        .put("view:azimuth", acquisition.viewAzimuth());
    root.putArray("links");
    ObjectNode assets = root.putObject("assets");
    for (String image : List.of("pan", "ms")) {
      List<BandRole> roles = image.equals("pan") ? List.of(BandRole.PAN) : List.of(Renderer.ROLES);
      for (int r = 1; r <= ROWS; r++) {
        for (int c = 1; c <= COLUMNS; c++) {
          String key = image + "-R" + r + "C" + c;
          ObjectNode asset = assets.putObject(key);
          asset.put("href", "./" + key + ".tif").put("type", "image/tiff; application=geotiff");
          asset.putArray("roles").add("data");
          ArrayNode eo = asset.putArray("eo:bands");
          ArrayNode numbers = asset.putArray("raster:bands");
          for (BandRole role : roles) {
            var calibration = acquisition.calibrationOf(role).orElseThrow();
            eo.addObject()
                .put("name", role.label())
                .put("solar_illumination", calibration.irradiance());
            numbers
                .addObject()
                .put("data_type", "uint16")
                .put("scale", calibration.gain())
                .put("offset", calibration.offset());
          }
        }
      }
    }
    Json.write(root, survey.item());
  }
}
