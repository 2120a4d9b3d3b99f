package sharpkestrel.place.mosaic;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.operation.union.UnaryUnionOp;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Resampling;

/** A block whose scenes lie on one grid and agree in tone: what mosaics and seams are made from. */
public final class BalancedBlock {

  private static final double LOW = 0.02;
  private static final double HIGH = 0.98;

  private final List<Member> members;
  private final Overview overview;
  private final Tone[][] tones;
  private final Levels levels;
  private final double[] range;
  private final double metres;

  private BalancedBlock(
      List<Member> members,
      Overview overview,
      Tone[][] tones,
      Levels levels,
      double[] range,
      double metres) {
    this.members = members;
    this.overview = overview;
    this.tones = tones;
    this.levels = levels;
    this.range = range;
    this.metres = metres;
  }

  /**
   * @throws RasterException where scenes have no place, other bands or other kinds of values
   */
  public static BalancedBlock of(Block block, Job job) {
    List<Member> members = block.members(job);
    Grid grid = members.getFirst().raster().grid();
    Overview overview = Overview.of(members, grid, job);
    double metres = GroundSize.of(grid).mean();
    Tone[][] tones = Tones.of(
        overview,
        block.anchor() - 1,
        block.balance(),
        block.trend(),
        metres * (1L << overview.level()),
        job);
    double[] range = new double[overview.bands()];
    for (int b = 0; b < range.length; b++) {
      range[b] = range(overview.planes().get(block.anchor() - 1)[b], block.anchor());
    }
    Levels levels = Levels.of(overview, tones, metres * (1L << overview.level()));
    return new BalancedBlock(members, overview, tones, levels, range, metres);
  }

  private static double range(float[] plane, int anchor) {
    float[] sorted = plane.clone();
    Arrays.sort(sorted);
    int count = sorted.length;
    while (count > 0 && Float.isNaN(sorted[count - 1])) {
      count--;
    }
    if (count == 0) {
      throw new RasterException("The anchor, scene " + anchor
          + ", has no pixels in the area. Choose another anchor or area.");
    }
    double range = sorted[(int) (HIGH * (count - 1))] - sorted[(int) (LOW * (count - 1))];
    return range > 0 ? range : 1;
  }

  public Grid grid() {
    return members.getFirst().raster().grid();
  }

  /** The areas in which each scene is shown, along the seams that are seen least. */
  public OutlineSet seams(Seamlines lines, Job job) {
    Optional<PolygonFill> whole = Optional.empty();
    Optional<PolygonFill> clearance = Optional.empty();
    if (lines.keepWhole().isPresent() && lines.keepWhole().get().count() > 0) {
      Block.requireSystem(lines.keepWhole().get(), grid(), "The outlines to keep whole are");
      Geometry all = UnaryUnionOp.union(lines.keepWhole().get().outlines());
      whole = Optional.of(new PolygonFill(all, grid()));
      double margin = lines.clearance() / metres * grid().pixelSize();
      clearance = Optional.of(new PolygonFill(
          UnaryUnionOp.union(lines.keepWhole().get().outlines().stream()
              .map(g -> g.buffer(margin))
              .toList()),
          grid()));
    }
    Optional<Obstacles.Tall> tall = lines
        .surface()
        .map(surface ->
            new Obstacles.Tall(onGrid(surface), onGrid(lines.heights().orElseThrow())));
    Obstacles obstacles = new Obstacles(whole, clearance, tall, members, metres);
    CellReader reader = new CellReader(
        members,
        tones,
        range,
        obstacles,
        lines.level() > 0 ? Optional.of(levels) : Optional.empty(),
        job);
    SeamFinder finder = new SeamFinder(members, reader, job);
    return SeamAreas.of(finder.find(), members.size());
  }

  private Raster onGrid(Raster heights) {
    if (!heights.grid().crs().isKnown()) {
      throw new RasterException(
          "A height model does not say where it lies (no coordinate system). Give one that does.");
    }
    return OnGrid.of(heights, grid(), Crs.of(grid().crs()), Resampling.BILINEAR);
  }

  /**
   * How far the scenes are apart along seams, before and after.
   *
   * @param level metres from seams over which slow differences are evened out
   */
  public SeamVisibility visibility(OutlineSet areas, double level, Job job) {
    Optional<Levels> evened = level > 0 ? Optional.of(levels) : Optional.empty();
    return new SeamFigures(members, tones, evened, range, metres, job)
        .of(overview, SeamAreas.fills(areas, members));
  }

  /**
   * The scenes laid together; computed where somebody looks.
   *
   * @param areas of seams, where the rule is to follow them
   * @param within what is shown, else all
   * @param feather metres over which scenes blend
   * @param level metres from seams over which slow differences are evened out
   */
  public Raster mosaic(
      Overlap overlap,
      Optional<OutlineSet> areas,
      Optional<OutlineSet> within,
      double feather,
      double level,
      Attachments attachments) {
    PolygonFill[] fills =
        areas.map(a -> SeamAreas.fills(a, members)).orElse(new PolygonFill[members.size()]);
    if (overlap == Overlap.MOST_NADIR) {
      members.stream().filter(m -> Double.isNaN(m.nadir())).findFirst().ifPresent(m -> {
        throw new RasterException(
            "Scene " + m.number()
                + " does not say at what angle it was taken, so it is not known which is most nadir. Choose another rule.");
      });
    }
    Optional<PolygonFill> shown = within.map(w -> {
      Block.requireSystem(w, grid(), "The area of interest is");
      return new PolygonFill(UnaryUnionOp.union(w.outlines()), grid());
    });
    Optional<MosaicRaster.Levelling> levelling = overlap == Overlap.SEAMS && level > 0
        ? Optional.of(new MosaicRaster.Levelling(
            levels,
            new Shares(overview, fills, level / metres / (1L << overview.level())),
            overview.level()))
        : Optional.empty();
    return new MosaicRaster(
        members, tones, overlap, fills, shown, feather / metres, levelling, attachments);
  }
}
