package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.extract.cluster.ClusterSettings;
import sharpkestrel.extract.cluster.Clusters;
import sharpkestrel.extract.pixels.PixelFeatures;
import sharpkestrel.extract.pixels.PixelSamples;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelOverlap;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.regions.DrawnRegions;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Clusters of pixels that form of themselves. */
@StepInfo(
    id = "cluster",
    stage = Stage.EXTRACT,
    family = "Clusters",
    title = "Cluster pixels",
    makes = "Clusters",
    does =
        "Lets clusters of pixels form without samples, of the scene, of an area, or inside some classes only. Each cluster is one object"
            + " with its means and spreads, the nearest other, and how surely its pixels belong to it. 'name-classes' makes classes of them.")
public record Cluster(
    @Group PixelScene in,

    @In(
        does = "Outlines of the area in which clusters form; elsewhere there are none.",
        optional = true,
        without = "the whole scene",
        byHand = true,
        suits = Suits.OBJECTS)
    Optional<OutlineSet> within,

    @In(
        does =
            "A class map, or classified objects, of which some classes fall into clusters; the others stay as they are.",
        optional = true,
        byHand = true)
    Optional<ObjectSet> classes,

    @Setting(
        label = "Inside",
        does = "The classes that fall into clusters, separated by commas.",
        initial = "auto")
    List<String> inside,

    @Setting(
        label = "Bands",
        does = "Bands to tell by, by role or name, separated by commas; auto takes all.",
        initial = "auto")
    List<String> bands,

    @Group ClusterSettings settings)
    implements Step<ObjectSet> {

  /** Pixels of which clusters are formed; all others join them. */
  private static final double LOOKED_AT = 150_000;

  private static final int TILE = 512;

  public Cluster {
    if (classes.isPresent() && inside.isEmpty()) {
      throw new IllegalArgumentException(
          "Say which classes fall into clusters (--inside), e.g. ground.");
    }
  }

  /** What each pixel is before: 1 where clusters form, above that the other classes, 0 for nothing. */
  private record Before(LabelRaster labels, List<String> others, List<String> colours) {}

  @Override
  public ObjectSet run(Job job) {
    Raster scene = in.raster();
    PixelFeatures features = PixelFeatures.of(scene, bands, false, List.of());
    Before before = before(scene.grid(), job);
    double pixels = before.labels == null
        ? scene.grid().pixels()
        : LabelOverlap.pixels(before.labels, before.labels.maxLabel(), job)[1];
    LabelRaster only = before.labels == null ? null : onlyFirst(before.labels);
    float[][] columns =
        PixelSamples.some(features, only, LOOKED_AT / Math.max(1, pixels), settings.seed(), job);
    if (columns[0].length == 0) {
      throw new RasterException(
          "There is no pixel with data where clusters are to form. Choose another area, or other classes.");
    }
    Clusters clusters = Clusters.find(columns, settings, job);
    ScratchLabels labels = assigned(features, clusters, before, job);
    return map(labels, clusters, features, before, job);
  }

  private static LabelRaster onlyFirst(LabelRaster labels) {
    return new LabelRaster() {
      @Override
      public Grid grid() {
        return labels.grid();
      }

      @Override
      public void read(Window window, int[] target) {
        labels.read(window, target);
        Arrays.setAll(target, i -> target[i] == 1 ? 1 : 0);
      }

      @Override
      public int maxLabel() {
        return 1;
      }
    };
  }

  private Before before(Grid grid, Job job) {
    if (within.isEmpty() && classes.isEmpty()) {
      return new Before(null, List.of(), List.of());
    }
    ScratchLabels area = new ScratchLabels(grid);
    if (within.isPresent()) {
      DrawnRegions.requireSystemOf(grid, within.get());
      DrawnRegions.draw(within.get().outlines(), area, job);
    }
    if (classes.isEmpty()) {
      ClassMap.eachStrip(grid, job, rows -> {
        int[] values = new int[rows.area()];
        area.read(rows, values);
        Arrays.setAll(values, i -> Math.min(1, values[i]));
        area.write(rows, values);
      });
      area.setMaxLabel(1);
      return new Before(area, List.of(), List.of());
    }
    return besideClasses(grid, area, job);
  }

  private Before besideClasses(Grid grid, ScratchLabels area, Job job) {
    if (!classes.get().labels().grid().equals(grid)) {
      throw new RasterException(
          "The classes lie on other pixels than the scene. Give the scene that was classified.");
    }
    ClassMap map = ClassMap.of(classes.get(), job);
    List<String> asked = ClassMap.asked(inside, map.classes());
    List<String> others = new ArrayList<>();
    List<String> colours = new ArrayList<>();
    int[] become = new int[map.classes().size() + 1];
    for (int k = 0; k < map.classes().size(); k++) {
      boolean falls = asked.contains(map.classes().get(k));
      if (!falls || within.isPresent()) {
        others.add(map.classes().get(k));
        colours.add(map.colours().get(k));
      }
      become[k + 1] = falls ? 1 : 1 + others.size();
    }
    int[] outside = new int[become.length];
    for (int k = 0; k < map.classes().size(); k++) {
      outside[k + 1] = 2 + others.indexOf(map.classes().get(k));
    }
    ClassMap.eachStrip(grid, job, rows -> {
      int[] values = new int[rows.area()];
      int[] there = new int[rows.area()];
      map.labels().read(rows, values);
      area.read(rows, there);
      for (int i = 0; i < values.length; i++) {
        boolean counts = within.isEmpty() || there[i] > 0;
        values[i] = counts ? become[values[i]] : outside[values[i]];
      }
      area.write(rows, values);
    });
    area.setMaxLabel(1 + others.size());
    return new Before(area, others, colours);
  }

  private static ScratchLabels assigned(
      PixelFeatures features, Clusters clusters, Before before, Job job) {
    Grid grid = features.scene().grid();
    ScratchLabels labels = new ScratchLabels(grid);
    int across = Math.ceilDiv(grid.width(), TILE);
    int down = Math.ceilDiv(grid.height(), TILE);
    Parallel.run(across * down, job, t -> {
      Window tile =
          new Window(t % across * TILE, t / across * TILE, TILE, TILE).intersect(grid.window());
      int[] values = new int[tile.area()];
      if (before.labels == null) {
        Arrays.fill(values, 1);
      } else {
        before.labels.read(tile, values);
      }
      float[][] planes = null;
      float[] row = new float[features.names().size()];
      for (int i = 0; i < values.length; i++) {
        if (values[i] == 1) {
          planes = planes == null ? features.read(0, tile, job.request()) : planes;
          if (Float.isNaN(planes[0][i])) {
            values[i] = 0;
            continue;
          }
          for (int f = 0; f < row.length; f++) {
            row[f] = planes[f][i];
          }
          values[i] = 1 + clusters.of(row);
        } else if (values[i] > 1) {
          // the other classes come behind the clusters
          values[i] += clusters.count() - 1;
        }
      }
      labels.write(tile, values);
      job.progress("Sending pixels to clusters", t, (long) across * down);
    });
    labels.setMaxLabel(clusters.count() + before.others.size());
    return labels;
  }

  private ObjectSet map(
      ScratchLabels labels, Clusters clusters, PixelFeatures features, Before before, Job job) {
    int all = clusters.count() + before.others.size();
    List<String> names = new ArrayList<>(names(clusters, before.others));
    List<String> colours = new ArrayList<>(clusters.colours());
    List<Table.Column> told = ClusterColumns.of(clusters, names, columns(features), all);
    names.addAll(before.others);
    colours.addAll(before.colours);
    return new ClassMap(labels, names, colours, GroundSize.of(features.scene())).objects(told, job);
  }

  private static List<ClusterColumns.Told> columns(PixelFeatures features) {
    List<ClusterColumns.Told> columns = new ArrayList<>();
    for (int f = 0; f < features.names().size(); f++) {
      String unit = features.band(f).orElseThrow().unit();
      columns.add(new ClusterColumns.Told(features.names().get(f), unit));
    }
    return columns;
  }

  /** Clusters inside one class have its name and a number. */
  private List<String> names(Clusters clusters, List<String> others) {
    if (inside.size() != 1) {
      return clusters.names();
    }
    List<String> names = new ArrayList<>();
    int number = 0;
    while (names.size() < clusters.count()) {
      String name = inside.getFirst().strip() + " " + ++number;
      if (!others.contains(name)) {
        names.add(name);
      }
    }
    return names;
  }
}
