package sharpkestrel.sharpen;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Statistics;
import sharpkestrel.sharpen.texture.Binning;
import sharpkestrel.sharpen.texture.Direction;
import sharpkestrel.sharpen.texture.Levels;
import sharpkestrel.sharpen.texture.Measure;
import sharpkestrel.sharpen.texture.TextureRaster;
import sharpkestrel.step.Group;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Measures of texture in a moving window, several in one pass, one band each. */
@StepInfo(
    id = "texture",
    stage = Stage.SHARPEN,
    title = "Texture",
    does =
        "Measures texture in the window about each pixel: statistics of values, and of pairs of grey levels after Haralick,"
            + " several in one pass. Writes one 32-bit float band for each measure.")
public record Texture(
    @Group TextureSource source,

    @Setting(
        label = "Measures",
        does =
            "Separated by commas: range, mean, variance, deviation, entropy of values; contrast, dissimilarity, homogeneity,"
                + " second_moment, pair_entropy, correlation, pair_mean, pair_variance, difference_variance,"
                + " difference_entropy, sum_entropy, information of pairs; all.",
        initial = "contrast,homogeneity,pair_entropy")
    List<String> measures,

    @Setting(
        label = "Window",
        does =
            "Side of the window: an odd number of pixels, or metres with an m behind, e.g. 4.5 m.",
        initial = "9")
    String window,

    @Group Pairs pairs)
    implements Step<Raster> {

  /** How pairs of pixels and their grey levels are made. */
  public record Pairs(
      @Setting(
          label = "Distance",
          unit = "px",
          does = "Pixels from one of a pair to the other.",
          min = 1,
          initial = "1")
      int distance,

      @Setting(
          label = "Direction",
          does =
              "In which pairs lie: east, north_east, north, north_west; or the mean, min, max or range over the four.",
          initial = "mean")
      Direction direction,

      @Setting(
          label = "Levels",
          does = "Grey levels into which values are sorted.",
          min = 8,
          max = 256,
          initial = "32")
      int levels,

      @Setting(
          label = "Binning",
          does =
              "equal_width: levels of one width; equal_population: as many pixels in each; cuts: at the values given.",
          initial = "equal_width")
      Binning binning,

      @Setting(
          label = "Cuts",
          does = "For 'cuts': values between the levels, ascending, separated by commas.",
          initial = "auto")
      List<Double> cuts,

      @Setting(
          label = "Left out",
          unit = "%",
          does =
              "Share of the pixels at either end that share the outermost level, for levels of one width.",
          min = 0,
          max = 20,
          initial = "0.5")
      double leftOut) {

    public Pairs {
      if (binning == Binning.CUTS && cuts.isEmpty()) {
        throw new IllegalArgumentException(
            "The binning 'cuts' needs the values between the levels, e.g. 200,350,500.");
      }
    }

    /** The levels, fewer where the values do not make so many. */
    Levels of(Statistics statistics, boolean whole, Job job) {
      if (binning == Binning.CUTS) {
        return new Levels(cuts.stream().mapToDouble(Double::doubleValue).toArray());
      }
      double low = statistics.histogram().quantile(leftOut / 100);
      double high = statistics.histogram().quantile(1 - leftOut / 100);
      if (!(statistics.max() > statistics.min())) {
        // one value: one level of two, and textures of nothing
        return new Levels(new double[] {statistics.max() + 1});
      }
      if (!(high > low)) {
        low = statistics.min();
        high = statistics.max();
      }
      int count = levels;
      int values = (int) Math.min(1 << 20, Math.round(high - low) + 1);
      if (whole && values < levels) {
        count = Math.max(Levels.LEAST, values);
        job.warn("Only " + values + " whole numbers lie between " + Math.round(low) + " and "
            + Math.round(high) + ", so " + count + " grey levels are used instead of " + levels
            + ".");
      }
      return binning == Binning.EQUAL_WIDTH
          ? Levels.ofWidth(low, high, count)
          : Levels.ofPopulation(statistics, count);
    }
  }

  @Override
  public Raster run(Job job) {
    int side = source.pixels(window);
    if (pairs.distance() >= side) {
      throw new RasterException("No two pixels of a window of " + side + " lie " + pairs.distance()
          + " apart. Take a larger window, or a shorter distance.");
    }
    List<Measure> wanted = wanted();
    Grouped grouped = grouped(job);
    return new TextureRaster(
        source.values(),
        grouped.statistics(),
        wanted,
        grouped.levels(),
        side,
        pairs.direction(),
        pairs.distance());
  }

  /** Values and the grey levels into which they are sorted. */
  public record Grouped(Statistics statistics, Levels levels) {}

  /** How the band's values are sorted into grey levels. */
  public Grouped grouped(Job job) {
    Statistics statistics = source.statistics(job);
    boolean whole = source.values().bands().get(0).type().isWhole();
    return new Grouped(statistics, pairs.of(statistics, whole, job));
  }

  private List<Measure> wanted() {
    List<Measure> wanted = new ArrayList<>();
    for (String text : measures) {
      if (text.strip().equalsIgnoreCase("all")) {
        return List.of(Measure.values());
      }
      String name = text.strip().toUpperCase(Locale.ROOT).replace('-', '_').replace(' ', '_');
      Measure measure = Arrays.stream(Measure.values())
          .filter(m -> m.name().equals(name))
          .findFirst()
          .orElseThrow(() -> new RasterException("There is no measure '" + text + "'. There are: "
              + String.join(
                  ", ",
                  Arrays.stream(Measure.values())
                      .map(m -> m.name().toLowerCase(Locale.ROOT))
                      .toList())
              + ", all."));
      if (!wanted.contains(measure)) {
        wanted.add(measure);
      }
    }
    if (wanted.isEmpty()) {
      throw new RasterException("Name at least one measure, e.g. contrast, or all.");
    }
    return wanted;
  }
}
