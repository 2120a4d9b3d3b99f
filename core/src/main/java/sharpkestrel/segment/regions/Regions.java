package sharpkestrel.segment.regions;

import java.util.List;
import java.util.Optional;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;

/** How the regions are made on which the merge tree is built. */
public record Regions(
    @In(
        does = "Outlines that become objects, such as buildings or parcels (method outlines).",
        optional = true,
        byHand = true,
        when = "method=outlines")
    Optional<OutlineSet> outlines,

    @Setting(
        label = "Method",
        does =
            "merge-tree: superpixels, merged to a grain; mean-shift: what climbs to one colour; watershed: basins of the"
                + " gradient; slic: clusters on a grid; graph: by the strongest edge within; cut-values: between cuts of"
                + " the further raster, or of the first band; numbers: of one class or cluster; outlines; grid: cells. The"
                + " grain slides over what any of them makes.",
        initial = "merge_tree")
    Method method,

    @Setting(
        label = "Superpixel",
        does = "Area of a superpixel in pixels, the smallest thing the tree can tell apart.",
        unit = "px",
        min = 9,
        max = 10_000,
        initial = "25",
        when = {"method=merge_tree", "method=slic"})
    double superpixel,

    @Setting(
        label = "Compactness",
        does = "How round superpixels stay; lower ones follow weak edges more closely.",
        min = 0.001,
        max = 10,
        initial = "0.1",
        when = {"method=merge_tree", "method=slic"})
    double compactness,

    @Setting(
        label = "Radius",
        does = "Half the side of the square a pixel looks around in.",
        unit = "px",
        min = 1,
        max = 30,
        initial = "5",
        when = "method=mean_shift")
    int radius,

    @Setting(
        label = "Range",
        does = "How far colours may differ to count as near, of the spread of the scene's values.",
        unit = "%",
        min = 0.1,
        max = 100,
        initial = "6",
        when = "method=mean_shift")
    double range,

    @Setting(
        label = "Iterations",
        does = "Most steps of a climb or of clustering.",
        min = 1,
        max = 50,
        initial = "5",
        when = {"method=mean_shift", "method=slic"})
    int iterations,

    @Setting(
        label = "Depth",
        does =
            "Basins less deep than this are joined; one is a step of a tenth of the light from one pixel to the next.",
        min = 0,
        max = 100,
        initial = "0.5",
        when = "method=watershed")
    double depth,

    @Setting(
        label = "Scale",
        does =
            "Larger ones prefer larger regions: how much the strongest edge within may be exceeded, times size.",
        min = 0,
        max = 1e9,
        initial = "100",
        when = "method=graph")
    double scale,

    @Setting(
        label = "Smoothing",
        does =
            "Spread of the Gaussian that takes the noise of single pixels off before edges are looked at.",
        unit = "px",
        min = 0,
        max = 20,
        initial = "0.8",
        when = "method=graph")
    double smoothing,

    @Setting(
        label = "Cuts",
        does = "Values at which to cut, in rising order, e.g. 0.2,0.4.",
        initial = "auto",
        when = "method=cut_values")
    List<Double> cuts,

    @Setting(
        label = "Cell",
        does = "Side of a cell of the grid.",
        unit = "m",
        min = 0.01,
        max = 1e6,
        initial = "50",
        when = "method=grid")
    double cell,

    @Setting(
        label = "Least",
        does =
            "Regions of so many pixels and less are joined to a neighbour: graph across the weakest edge, others along the longest"
                + " common border. auto is 20 for mean-shift, watershed and graph, else none.",
        unit = "px",
        min = 0,
        max = 100_000,
        initial = "auto",
        when = {
          "method=mean_shift",
          "method=watershed",
          "method=graph",
          "method=cut_values",
          "method=numbers"
        })
    double least) {

  /** Pixels of a superpixel where nothing else is said. */
  public static final double SUPERPIXEL = 25;

  public static final double COMPACTNESS = 0.1;

  /** Pixels of a region that noise alone makes, by methods that look at single pixels. */
  private static final int USUAL_LEAST = 20;

  public Regions {
    if (method == Method.OUTLINES && outlines.isEmpty()) {
      throw new RasterException(
          "The method 'outlines' needs outlines: give their file or a result (--outlines).");
    }
    if (method == Method.CUT_VALUES && cuts.isEmpty()) {
      throw new RasterException(
          "The method 'cut-values' needs values at which to cut, e.g. 0.2,0.4 (--cuts).");
    }
  }

  /** Superpixels of a size, made as they are where nothing else is said. */
  public static Regions superpixels(double superpixel, double compactness) {
    return new Regions(
        Optional.empty(),
        Method.MERGE_TREE,
        superpixel,
        compactness,
        5,
        6,
        5,
        0.5,
        100,
        0.8,
        List.of(),
        50,
        0);
  }

  /**
   * @param values whose values are cut or counted as numbers, on the scene's grid; the scene where there is none
   * @param labels (output) 1 to the returned count; 0 for no-data and what is in no region
   */
  public int make(
      Raster scene, Optional<Raster> values, FeatureSpace space, ScratchLabels labels, Job job) {
    int spacing = (int) Math.max(3, Math.round(Math.sqrt(superpixel)));
    return switch (method) {
      case MERGE_TREE -> Superpixels.make(space, spacing, compactness, labels, job);
      case MEAN_SHIFT ->
        joined(
            labels,
            MeanShift.make(MeanShiftRaster.of(scene, radius, range, iterations, job), labels, job),
            job);
      case WATERSHED -> joined(labels, Watershed.make(space, depth, labels, job), job);
      case SLIC -> Slic.make(space, spacing, compactness, iterations, labels, job);
      case GRAPH -> GraphRegions.make(space, scale, smoothing, leastPixels(), labels, job);
      case CUT_VALUES ->
        joined(labels, ValueRegions.between(values.orElse(scene), 0, cuts, labels, job), job);
      case NUMBERS ->
        joined(
            labels,
            ValueRegions.ofNumbers(
                values.orElseThrow(
                    () -> new RasterException(
                        "The method 'numbers' needs the raster of numbers as further raster (--layer).")),
                0,
                labels,
                job),
            job);
      case OUTLINES -> DrawnRegions.ofOutlines(space, outlines.orElseThrow(), labels, job);
      case GRID ->
        DrawnRegions.ofGrid(space, Math.max(1, cell / GroundSize.of(scene).mean()), labels, job);
    };
  }

  private int leastPixels() {
    return switch (method) {
      case MEAN_SHIFT, WATERSHED, GRAPH -> Double.isNaN(least) ? USUAL_LEAST : (int) least;
      default -> Double.isNaN(least) ? 0 : (int) least;
    };
  }

  private int joined(ScratchLabels labels, int regions, Job job) {
    int most = leastPixels();
    return most == 0 ? regions : SmallRegions.join(labels, regions, most, job);
  }
}
