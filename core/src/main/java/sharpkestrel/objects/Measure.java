package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Statistics;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Measures every object in one pass over the scene. */
@StepInfo(
    id = "measure",
    stage = Stage.SEGMENT,
    title = "Measure",
    next = "Objects without features.",
    nextFor = Suits.UNMEASURED,
    makes = "Measured",
    version = 2,
    does =
        "Measures every object: shape, spectrum, texture, context, and with height models how high it stands. The page of"
            + " features says what each is; groups that are not needed may be left out.")
public record Measure(
    @In(does = "The objects to measure.") ObjectSet objects,

    @In(does = "The scene to measure them on, on the same grid.")
    Raster scene,

    @Group HeightModels models,

    @In(
        does =
            "Coarser objects on the same pixels, measured before: each object also has the numbers of the coarser one it lies in.",
        optional = true,
        byHand = true)
    Optional<ObjectSet> coarser,

    @Setting(
        label = "Features",
        does =
            "Groups to measure: shape, outline (corners, symmetry), spectral, texture, height, context. auto measures all for"
                + " which there is what they need.",
        initial = "auto")
    List<String> features,

    @Setting(
        label = "Beside",
        does =
            "CQL2 test of objects; each object then has its distance to those that pass, and the share of its border with"
                + " them, e.g. ndvi > 0.4.",
        initial = "auto")
    Optional<String> beside,

    @Setting(
        label = "Sun azimuth",
        does =
            "Direction of the sun, clockwise from north, to look for shadows on the other side; auto takes it from the scene.",
        unit = "°",
        min = 0,
        max = 360,
        initial = "auto")
    double sunAzimuth,

    @Setting(
        label = "Texture levels",
        does =
            "Grey levels for the co-occurrence measures, over the middle 98 % of the scene's brightness.",
        min = 4,
        max = 256,
        initial = "32")
    int textureLevels,

    @Setting(
        label = "Pairs",
        does =
            "Which neighbours make pairs: all four directions, across, down, or along a diagonal, falling or rising to the right.",
        initial = "all")
    PairDirections pairs)
    implements Step<ObjectSet> {

  /** Under this share of the scene's median brightness it is dark. */
  private static final double DARK = 1 / 3.0;

  /** What may be measured. */
  private enum Wanted {
    SHAPE,
    OUTLINE,
    SPECTRAL,
    TEXTURE,
    HEIGHT,
    CONTEXT
  }

  public Measure {
    wanted(features);
    beside.ifPresent(Cql2::parseTest);
  }

  private static Set<Wanted> wanted(List<String> texts) {
    Set<Wanted> wanted = EnumSet.noneOf(Wanted.class);
    for (String text : texts) {
      try {
        wanted.add(Wanted.valueOf(text.strip().toUpperCase(Locale.ROOT)));
      } catch (IllegalArgumentException unknown) {
        throw new RasterException("There is no group of features '" + text
            + "'. There are shape, outline, spectral, texture, height and context.");
      }
    }
    return wanted.isEmpty() ? EnumSet.allOf(Wanted.class) : wanted;
  }

  @Override
  public ObjectSet run(Job job) {
    check();
    Set<Wanted> wanted = wanted(features);
    boolean withHeights = models.surface().isPresent() && wanted.contains(Wanted.HEIGHT);
    ObjectGeometry geometry = ObjectGeometry.of(objects);
    int n = objects.count();
    int bands = scene.bands().size();
    // Of every pixel: reduced levels of a lazy and of a written scene differ.
    Statistics[] statistics = Statistics.of(scene, 0, job);
    GreyLevels greys = GreyLevels.of(statistics, textureLevels);

    List<Raster> rasters = new ArrayList<>(List.of(scene));
    List<ObjectStrips.Collector<?>> collectors = new ArrayList<>();
    PlaneFeatures spectral = new PlaneFeatures(n, 0, statistics, true);
    collectors.add(spectral);
    BorderFeatures borders = new BorderFeatures(n, bands, darkness(statistics), sun());
    collectors.add(borders);
    PairFeatures texture = new PairFeatures(n, greys, pairs);
    EdgeFeatures edges = new EdgeFeatures(n, greys);
    if (wanted.contains(Wanted.TEXTURE)) {
      collectors.add(texture);
      collectors.add(edges);
    }
    Optional<HeightFeatures> heightFeatures = Optional.empty();
    if (withHeights) {
      Raster above = models.aboveGround(scene.grid()).orElseThrow();
      Raster top = models.surfaceOn(scene.grid()).orElseThrow();
      rasters.add(above);
      rasters.add(top);
      HeightFeatures measured = new HeightFeatures(n, bands, above, top, objects.ground(), job);
      collectors.addAll(measured.collectors());
      heightFeatures = Optional.of(measured);
    }
    ObjectStrips.run(objects, geometry, rasters, collectors, job);

    spectral.end();
    Neighbours neighbours = borders.neighbours();
    List<Table.Column> columns = new ArrayList<>();
    List<Table.Column> shape = ShapeFeatures.of(objects, geometry);
    columns.addAll(
        wanted.contains(Wanted.SHAPE)
            ? shape
            : shape.stream().filter(c -> c.name().equals("area")).toList());
    if (wanted.contains(Wanted.OUTLINE)) {
      columns.addAll(OutlineShape.of(objects, geometry, job));
    }
    if (wanted.contains(Wanted.SPECTRAL)) {
      columns.addAll(SpectralFeatures.columns(scene, spectral, neighbours));
    }
    if (wanted.contains(Wanted.TEXTURE)) {
      columns.addAll(texture.columns());
      columns.addAll(edges.columns());
    }
    heightFeatures.ifPresent(measured -> columns.addAll(measured.columns()));
    if (wanted.contains(Wanted.CONTEXT)) {
      columns.addAll(new ContextFeatures(objects, neighbours)
          .columns(columns, borders, beside.orElse(""), coarser, job));
    }
    return objects.withTable(new Table(n, columns));
  }

  private void check() {
    Grid grid = objects.labels().grid();
    if (grid.width() != scene.grid().width() || grid.height() != scene.grid().height()) {
      throw new RasterException(String.format(
          Locale.ROOT,
          "The objects lie on %d x %d pixels, the scene on %d x %d. Measure on the scene that was segmented.",
          grid.width(),
          grid.height(),
          scene.grid().width(),
          scene.grid().height()));
    }
    if (objects.count() == 0) {
      throw new RasterException("There are no objects to measure: the object set is empty.");
    }
    if (models.surface().isEmpty() && features.contains("height")) {
      throw new RasterException(
          "Heights of objects need the surface model and the height model of the ground (--surface, --heights).");
    }
  }

  private Optional<Double> sun() {
    return Double.isNaN(sunAzimuth)
        ? scene.attachments().get(Acquisition.class).map(Acquisition::sunAzimuth)
        : Optional.of(sunAzimuth);
  }

  private static double darkness(Statistics[] statistics) {
    double median = 0;
    for (Statistics s : statistics) {
      median += s.valid() == 0 ? 0 : s.histogram().quantile(0.5) / statistics.length;
    }
    return DARK * median;
  }
}
