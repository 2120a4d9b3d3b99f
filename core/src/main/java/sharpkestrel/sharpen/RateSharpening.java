package sharpkestrel.sharpen;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;
import sharpkestrel.sharpen.pan.Method;
import sharpkestrel.sharpen.pan.Pair;
import sharpkestrel.sharpen.pan.Rater;
import sharpkestrel.sharpen.pan.Ratings;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Ranks ways of sharpening a scene by numbers, with and without a reference. */
@StepInfo(
    id = "rate-sharpening",
    stage = Stage.SHARPEN,
    title = "Rate sharpening",
    does =
        "Ranks the methods of pan-sharpening on a scene beside plain interpolation: error, spectral angle and likeness of"
            + " the scene reduced once more and compared with itself, and distortions at full resolution.")
public record RateSharpening(
    @In(
        does = "The panchromatic scene, placed.",
        suits = {Suits.PLACED, Suits.ONE_BAND})
    Raster pan,

    @In(
        does = "The multispectral scene, placed in the same coordinate system.",
        suits = {Suits.PLACED, Suits.SEVERAL_BANDS})
    Raster multispectral,

    @Setting(
        label = "Area",
        does = "West, south, east, north in the scenes' own coordinates; auto takes all.",
        initial = "auto")
    Optional<Extent> extent,

    @Setting(
        label = "Methods",
        does = "The methods to rate, separated by commas; auto rates all.",
        initial = "auto")
    List<String> methods,

    @Setting(
        label = "Contrast",
        does =
            "Contrast that the multispectral sensor keeps of the finest waves that its pixels can show.",
        min = 0.05,
        max = 0.95,
        initial = "0.3")
    double contrast,

    @Setting(
        label = "Align bands",
        does = "Whether bands that lie off the panchromatic one are moved onto it first.",
        initial = "true")
    boolean align)
    implements Step<Ratings> {

  @Override
  public Ratings run(Job job) {
    Pair pair = Pair.of(pan, multispectral);
    Window area = extent.map(this::pixels).orElse(multispectral.grid().window());
    List<Method> wanted = methods.isEmpty()
        ? List.of(Method.values())
        : methods.stream().map(RateSharpening::method).toList();
    return new Rater(pair, contrast, align, area, job).rate(wanted);
  }

  private Window pixels(Extent wanted) {
    Affine toPixel = multispectral.grid().affine().inverse();
    int left = (int) Math.round(toPixel.x(wanted.west(), wanted.north()));
    int top = (int) Math.round(toPixel.y(wanted.west(), wanted.north()));
    int right = (int) Math.round(toPixel.x(wanted.east(), wanted.south()));
    int bottom = (int) Math.round(toPixel.y(wanted.east(), wanted.south()));
    return new Window(left, top, Math.max(0, right - left), Math.max(0, bottom - top));
  }

  private static Method method(String text) {
    String name = text.strip().replace('-', '_').replace(' ', '_').toUpperCase(Locale.ROOT);
    return Arrays.stream(Method.values())
        .filter(m -> m.name().equals(name))
        .findFirst()
        .orElseThrow(() -> new RasterException("There is no method '" + text + "'. There are: "
            + String.join(
                ", ",
                Arrays.stream(Method.values())
                    .map(m -> m.name().toLowerCase(Locale.ROOT))
                    .toList())
            + "."));
  }
}
