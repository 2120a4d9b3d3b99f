package sharpkestrel.place.mosaic;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.operation.union.UnaryUnionOp;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.place.ResultGrid;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.BandsOf;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Suits;

/** Placed scenes that overlap, and how their tones are made to agree. */
public record Block(
    @In(
        does = "Placed scenes that overlap; the first lies on top where a rule says so.",
        suits = Suits.PLACED)
    List<Raster> scenes,

    @In(
        does =
            "Areas that are not used, such as clouds; a column 'scene' with the number of the scene they belong to,"
                + " without it they hold for all.",
        optional = true)
    Optional<OutlineSet> leftOut,

    @Setting(
        label = "Balance",
        does =
            "How tones are made to agree where scenes overlap, worked out for all at once: a gain and an offset for each"
                + " band, or a curve.",
        initial = "histogram")
    Balance balance,

    @Setting(
        label = "Anchor",
        does = "Number of the scene whose tones stay as they are.",
        min = 1,
        max = MOST,
        initial = "1")
    int anchor,

    @Setting(
        label = "Trend",
        does =
            "Degree of the slow changes of illumination that are evened out between scenes: 0 for none, 1 for a plane, 2"
                + " for a bowl.",
        min = 0,
        max = 2,
        initial = "0")
    int trend,

    @Setting(
        label = "Bands",
        does = "Roles of the bands to lay together; auto takes those of the first scene.",
        initial = "auto")
    List<String> bands,

    @Group ResultGrid result) {

  /** Scenes in a block at most. */
  static final int MOST = 60;

  /** The scenes on one grid, ready to be balanced. */
  List<Member> members(Job job) {
    check();
    CrsName target =
        result.crs().isKnown() ? result.crs() : scenes.getFirst().grid().crs();
    Crs system = Crs.of(target);
    List<Raster> alike = alike(job);
    Grid grid = grid(system);
    List<Member> members = new ArrayList<>();
    for (int i = 0; i < alike.size(); i++) {
      Raster on = OnGrid.of(alike.get(i), grid, system, result.resampling());
      Window where = window(grid, extentOf(alike.get(i).grid(), system));
      if (where.isEmpty()) {
        job.warn("Scene " + (i + 1) + " does not reach the area and is not used.");
      }
      Optional<Acquisition> taken = alike.get(i).attachments().get(Acquisition.class);
      double nadir = taken.map(Acquisition::viewOffNadir).orElse(Double.NaN);
      double azimuth = taken.map(Acquisition::viewAzimuth).orElse(Double.NaN);
      members.add(new Member(i + 1, on, where, leftOutOf(i + 1, grid), nadir, azimuth));
    }
    return members;
  }

  private void check() {
    if (scenes.size() > MOST) {
      throw new RasterException("A block has at most " + MOST + " scenes, not " + scenes.size()
          + ". Lay a part of them together first.");
    }
    if (anchor > scenes.size()) {
      throw new RasterException(
          "The anchor is scene " + anchor + ", but there are only " + scenes.size() + ".");
    }
    for (int i = 0; i < scenes.size(); i++) {
      if (!scenes.get(i).grid().crs().isKnown()) {
        throw new RasterException(
            "Scene " + (i + 1)
                + " does not say where it lies (no coordinate system). Place it first: orthorectify or warp it.");
      }
    }
  }

  /** All with the same bands in the same order, without collars. */
  private List<Raster> alike(Job job) {
    Raster first = scenes.getFirst();
    List<BandRole> wanted = bands.isEmpty()
        ? first.bands().stream().map(Band::role).toList()
        : bands.stream().map(this::role).toList();
    List<Raster> alike = new ArrayList<>();
    for (int i = 0; i < scenes.size(); i++) {
      Raster chosen = chosen(scenes.get(i), wanted, i + 1);
      if (!alike.isEmpty() && !kind(chosen).equals(kind(alike.getFirst()))) {
        throw new RasterException("Scene " + (i + 1) + " holds " + kind(chosen) + ", the first "
            + kind(alike.getFirst()) + ". Calibrate all of them, or none.");
      }
      alike.add(Collar.without(chosen, job));
    }
    return alike;
  }

  private static String kind(Raster scene) {
    String unit = scene.bands().getFirst().unit();
    return unit.isEmpty() ? "numbers of the sensor" : unit;
  }

  private BandRole role(String text) {
    BandRole role = BandRole.guess(text);
    if (role == BandRole.OTHER && !text.equals(BandRole.OTHER.label())) {
      throw new RasterException("Bands (--bands) names the role '" + text
          + "', which there is not. The first scene has: " + roles(scenes.getFirst()) + ".");
    }
    return role;
  }

  private static String roles(Raster scene) {
    return String.join(", ", scene.bands().stream().map(b -> b.role().label()).toList());
  }

  /** The bands of the wanted roles. */
  private Raster chosen(Raster scene, List<BandRole> wanted, int number) {
    if (scene.bands().stream().map(Band::role).toList().equals(wanted)) {
      return scene;
    }
    int[] places = new int[wanted.size()];
    for (int b = 0; b < places.length; b++) {
      BandRole role = wanted.get(b);
      places[b] = scene
          .bandOf(role)
          .orElseThrow(() -> new RasterException("Scene " + number + " has no band '"
              + role.label()
              + "'; it has: "
              + roles(scene)
              + ". Say which bands all scenes have (--bands), or take the scene out."));
    }
    return new BandsOf(scene, places);
  }

  private Grid grid(Crs system) {
    Raster first = scenes.getFirst();
    boolean own =
        first.grid().crs().equals(system.name()) && first.grid().affine().isNorthUp();
    double size = !Double.isNaN(result.pixelSize())
        ? result.pixelSize()
        : own
            ? first.grid().affine().pixelWidth()
            : extentOf(first.grid(), system).width()
                / Math.max(first.grid().width(), first.grid().height());
    Extent all = null;
    for (Raster scene : scenes) {
      Extent here = extentOf(scene.grid(), system);
      all = all == null ? here : all.union(here);
    }
    Extent area = result.extent().isPresent() ? result.extent().get().intersect(all) : all;
    if (area.isEmpty()) {
      throw new RasterException("No scene reaches the area " + result.extent().orElse(all)
          + "; the scenes cover " + all + " in " + system.name() + ".");
    }
    double west = own ? first.grid().affine().c() : 0;
    double north = own ? first.grid().affine().f() : 0;
    double left = west + Math.floor((area.west() - west) / size + 1e-3) * size;
    double top = north + Math.ceil((area.north() - north) / size - 1e-3) * size;
    return new Grid(
        (int) Math.max(1, Math.ceil((area.east() - left) / size - 1e-3)),
        (int) Math.max(1, Math.ceil((top - area.south()) / size - 1e-3)),
        Affine.northUp(left, top, size),
        system.name());
  }

  private static Window window(Grid grid, Extent extent) {
    Affine toPixel = grid.affine().inverse();
    int left = (int) Math.floor(toPixel.x(extent.west(), extent.north()) + 1e-3);
    int top = (int) Math.floor(toPixel.y(extent.west(), extent.north()) + 1e-3);
    int right = (int) Math.ceil(toPixel.x(extent.east(), extent.south()) - 1e-3);
    int bottom = (int) Math.ceil(toPixel.y(extent.east(), extent.south()) - 1e-3);
    return new Window(left, top, Math.max(0, right - left), Math.max(0, bottom - top))
        .intersect(grid.window());
  }

  /** The area of a grid in another system, its borders followed. */
  private static Extent extentOf(Grid grid, Crs system) {
    if (grid.crs().equals(system.name())) {
      return grid.extent();
    }
    CoordinateMap map = Crs.of(grid.crs()).to(system);
    int steps = 16;
    double[] border = new double[8 * steps];
    for (int i = 0; i < 4 * steps; i++) {
      double t = (double) (i % steps) / steps;
      double col = new double[] {t, 1, 1 - t, 0}[i / steps] * grid.width();
      double row = new double[] {0, t, 1, 1 - t}[i / steps] * grid.height();
      border[2 * i] = grid.affine().x(col, row);
      border[2 * i + 1] = grid.affine().y(col, row);
    }
    map.apply(border, 4 * steps);
    Extent all = null;
    for (int i = 0; i < border.length; i += 2) {
      Extent here = new Extent(border[i], border[i + 1], border[i], border[i + 1]);
      all = all == null ? here : all.union(here);
    }
    return all;
  }

  private Optional<PolygonFill> leftOutOf(int number, Grid grid) {
    if (leftOut.isEmpty()) {
      return Optional.empty();
    }
    OutlineSet set = leftOut.get();
    requireSystem(set, grid, "The areas left out are");
    Table table = set.table();
    List<Geometry> own = new ArrayList<>();
    for (int i = 0; i < set.count(); i++) {
      double of = table.has(SCENE) ? table.values(SCENE)[i] : Double.NaN;
      if (Double.isNaN(of) || of == number) {
        own.add(set.outlines().get(i));
      }
    }
    return own.isEmpty()
        ? Optional.empty()
        : Optional.of(new PolygonFill(UnaryUnionOp.union(own), grid));
  }

  /** Column that tells which scene an area belongs to. */
  static final String SCENE = "scene";

  static void requireSystem(OutlineSet set, Grid grid, String what) {
    if (!set.crs().equals(grid.crs())) {
      throw new RasterException(String.format(
          Locale.ROOT,
          "%s in %s, the scenes are laid together in %s. Give them in that system.",
          what,
          set.crs().isKnown() ? set.crs() : "no known system",
          grid.crs()));
    }
  }
}
