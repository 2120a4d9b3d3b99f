package sharpkestrel.sharpen;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/**
 * Gives the bands of a multispectral scene the detail of a panchromatic one. Weights make the panchromatic band out of
 * the others; where none are given they are fitted by least squares at the multispectral scene's resolution (Aiazzi,
 * Baronti and Selva 2007, IEEE TGRS 45(10), 3230-3239).
 */
@StepInfo(
    id = "pansharpen",
    stage = Stage.SHARPEN,
    title = "Pan-sharpen",
    does =
        "Gives a multispectral scene the detail of its panchromatic band, on the panchromatic grid. The result keeps the"
            + " multispectral bands' order, roles and sample type.")
public record Pansharpen(
    @In(
        does = "The panchromatic scene, placed.",
        suits = {Suits.PLACED, Suits.ONE_BAND})
    Raster pan,

    @In(
        does = "The multispectral scene, placed in the same coordinate system.",
        suits = {Suits.PLACED, Suits.SEVERAL_BANDS})
    Raster multispectral,

    @Setting(
        label = "Method",
        does =
            "adaptive: component substitution with an intensity fitted to the sensor and a gain for each band;"
                + " brovey: every band times panchromatic over intensity, which keeps ratios of bands.",
        initial = "adaptive")
    Method method,

    @Setting(
        label = "Weights",
        does =
            "Share of each band in the panchromatic one, separated by commas, in the order of the bands; auto fits"
                + " them to the scene.",
        initial = "auto")
    List<Double> weights)
    implements Step<Raster> {

  /** How detail is injected. */
  public enum Method {
    ADAPTIVE,
    BROVEY
  }

  public Pansharpen {
    double sum = 0;
    for (double weight : weights) {
      if (!(weight >= 0)) {
        throw new IllegalArgumentException("Weights must not be below 0; one is " + weight + ".");
      }
      sum += weight;
    }
    if (!weights.isEmpty() && !(sum > 0)) {
      throw new IllegalArgumentException("At least one weight must be above 0.");
    }
  }

  @Override
  public Raster run(Job job) {
    if (!pan.grid().crs().equals(multispectral.grid().crs())) {
      throw new RasterException(String.format(
          Locale.ROOT,
          "The panchromatic scene is in %s, the multispectral one in %s. Orthorectify both into one system first.",
          pan.grid().crs(),
          multispectral.grid().crs()));
    }
    Extent common = pan.grid().extent().intersect(multispectral.grid().extent());
    if (common.isEmpty()) {
      throw new RasterException("The panchromatic scene ("
          + pan.grid().extent()
          + ") and the multispectral one ("
          + multispectral.grid().extent()
          + ") do not overlap.");
    }
    int bands = multispectral.bands().size();
    if (!weights.isEmpty() && weights.size() != bands) {
      throw new RasterException("There are " + weights.size() + " weights for " + bands
          + " multispectral bands; give one for each.");
    }
    int panBand = pan.bandOf(BandRole.PAN).orElse(0);
    double[] given = weights.stream().mapToDouble(Double::doubleValue).toArray();
    PanModel model = PanModel.fit(pan, panBand, multispectral, given, method, job);
    List<Band> out = new ArrayList<>();
    SampleType type = multispectral.bands().get(0).type();
    for (Band band : multispectral.bands()) {
      out.add(band.type() == type ? band : band.withType(type, band.noData()));
    }
    Affine toMultispectral =
        multispectral.grid().affine().inverse().after(pan.grid().affine());
    return new PansharpenRaster(pan, panBand, multispectral, toMultispectral, out, model, method);
  }
}
