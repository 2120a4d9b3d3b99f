package sharpkestrel.gather;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.BandRoles;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Regridded;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Puts single-band files, one above the other, into one scene whose bands have names and roles. */
@StepInfo(
    id = "stack",
    stage = Stage.GATHER,
    title = "Stack",
    does =
        "Puts files of single bands into one scene, on the grid of the finest. What a band stands for is guessed from what"
            + " the file says of it, then from its name, and can be given.")
public record Stack(
    @Setting(
        label = "Files",
        does = "Raster files of the same ground, separated by commas, in the order of the bands.",
        reads = RasterSources.class)
    List<Path> files,

    @Setting(
        label = "Roles",
        does =
            "What each band stands for, separated by commas, such as blue, green, red, near_infrared or other; auto guesses.",
        initial = "auto")
    List<String> roles)
    implements Step<Raster> {

  /** Pixels over the whole grid by which grids may differ and still be the same. */
  private static final double SAME = 1e-2;

  /** One band of a stack: which file, which of its bands, and as what. */
  public record Layer(Path file, Raster raster, int place, Band band) {}

  public Stack {
    if (files.isEmpty()) {
      throw new IllegalArgumentException("Give at least one file to stack.");
    }
  }

  @Override
  public Raster run(Job job) {
    List<Layer> layers = withRoles(guess(files));
    if (roles.isEmpty()) {
      warnOfDoubt(layers, job);
    }
    Layer finest = layers.stream()
        .min(Comparator.comparingDouble(l -> l.raster().grid().pixelSize()))
        .orElseThrow();
    Grid grid = finest.raster().grid();
    List<Raster> onGrid =
        layers.stream().map(layer -> onGrid(layer, finest, grid)).toList();
    SampleType type = common(layers);
    List<Band> bands = layers.stream()
        .map(layer ->
            layer.band().type() == type ? layer.band() : layer.band().withType(type, Double.NaN))
        .toList();
    Zoom zoom = Zoom.POINTWISE;
    for (Raster raster : onGrid) {
      zoom = zoom.over(raster.zoom());
    }
    return new DerivedRaster(grid, BandRoles.once(bands), finest.raster().attachments(), zoom) {
      @Override
      protected void compute(int level, Window window, float[][] target, Request request) {
        for (int b = 0; b < target.length; b++) {
          if (target[b] != null) {
            float[][] planes = new float[onGrid.get(b).bands().size()][];
            planes[layers.get(b).place()] = target[b];
            onGrid.get(b).read(level, window, planes, request);
          }
        }
      }
    };
  }

  /** Opens files and guesses what their bands stand for: from the band's role or name, then from the file's. */
  public static List<Layer> guess(List<Path> files) {
    List<Layer> layers = new ArrayList<>();
    Set<String> names = new HashSet<>();
    for (Path file : files) {
      Raster raster = RasterFiles.open(file);
      boolean single = raster.bands().size() == 1;
      for (int place = 0; place < raster.bands().size(); place++) {
        Band band = raster.bands().get(place);
        boolean guessed = band.roleGuessed() && single;
        BandRole role = guessed ? BandRole.OTHER : band.role();
        if (role == BandRole.OTHER && single) {
          role = BandRole.inText(stem(file));
        }
        boolean named = !band.name().matches("band \\d+");
        String name = named
            ? band.name()
            : role != BandRole.OTHER
                ? role.label()
                : single ? stem(file) : stem(file) + " " + band.name();
        layers.add(
            new Layer(file, raster, place, band.withRole(role).withName(distinct(name, names))));
      }
    }
    return layers;
  }

  /** A name that no band before has. */
  private static String distinct(String name, Set<String> before) {
    String free = name;
    for (int k = 2; !before.add(free); k++) {
      free = name + " " + k;
    }
    return free;
  }

  private static String stem(Path file) {
    return file.getFileName().toString().replaceFirst("\\.[^.]*$", "");
  }

  private List<Layer> withRoles(List<Layer> guessed) {
    if (roles.isEmpty()) {
      return guessed;
    }
    if (roles.size() != guessed.size()) {
      throw new RasterException("There are " + roles.size() + " roles for " + guessed.size()
          + " bands; give one for each.");
    }
    List<Layer> layers = new ArrayList<>();
    for (int b = 0; b < guessed.size(); b++) {
      String text = roles.get(b).strip();
      BandRole role = BandRole.guess(text);
      if (role == BandRole.OTHER && !text.equalsIgnoreCase(BandRole.OTHER.key())) {
        throw new RasterException("'" + text + "' is no role. Roles are " + BandRole.keys() + ".");
      }
      Layer layer = guessed.get(b);
      layers.add(
          new Layer(layer.file(), layer.raster(), layer.place(), layer.band().withRole(role)));
    }
    return layers;
  }

  private static void warnOfDoubt(List<Layer> layers, Job job) {
    Set<BandRole> seen = new HashSet<>();
    for (Layer layer : layers) {
      BandRole role = layer.band().role();
      if (role == BandRole.OTHER) {
        job.warn("What " + layer.file().getFileName()
            + " shows could not be guessed from it or its name. Give the roles.");
      } else if (!seen.add(role)) {
        job.warn("Two bands are taken for " + role.label() + ". Give the roles.");
      }
    }
  }

  private static SampleType common(List<Layer> layers) {
    SampleType first = layers.get(0).band().type();
    return layers.stream().allMatch(l -> l.band().type() == first) ? first : SampleType.FLOAT32;
  }

  private static Raster onGrid(Layer layer, Layer finest, Grid grid) {
    Grid own = layer.raster().grid();
    if (!own.crs().equals(grid.crs())) {
      throw new RasterException(layer.file().getFileName() + " is in " + own.crs() + ", "
          + finest.file().getFileName() + " in " + grid.crs()
          + ". Warp or orthorectify them into one system first.");
    }
    if (own.coincides(grid)) {
      return layer.raster();
    }
    if (!own.crs().isKnown() && own.affine().equals(Affine.IDENTITY)) {
      throw new RasterException(
          layer.file().getFileName() + " has " + own.width() + " x "
              + own.height() + " pixels, " + finest.file().getFileName() + " " + grid.width()
              + " x "
              + grid.height()
              + ", and neither says where they lie. Only bands of one size can be stacked without a place.");
    }
    if (own.extent().intersect(grid.extent()).isEmpty()) {
      throw new RasterException(layer.file().getFileName() + " (" + own.extent()
          + ") does not overlap " + finest.file().getFileName() + " (" + grid.extent()
          + "), so they cannot be bands of one scene.");
    }
    Affine map = own.affine().inverse().after(grid.affine());
    double skew =
        Math.max(Math.abs(map.b()), Math.abs(map.d())) * Math.max(grid.width(), grid.height());
    if (skew > SAME || !(map.a() > 0) || !(map.e() > 0)) {
      throw new RasterException("The pixels of " + layer.file().getFileName()
          + " lie turned against those of " + finest.file().getFileName()
          + ". Warp one of them to the other.");
    }
    return new Regridded(
        layer.raster(),
        grid,
        new Affine(map.a(), 0, map.c(), 0, map.e(), map.f()),
        Regridded.Kernel.CUBIC);
  }
}
