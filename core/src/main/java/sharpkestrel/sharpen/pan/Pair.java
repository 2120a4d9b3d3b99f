package sharpkestrel.sharpen.pan;

import java.util.Locale;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

/**
 * A panchromatic and a multispectral scene of the same ground, their grids parallel to each other.
 *
 * @param panBand place of the panchromatic band in its scene
 * @param toMultispectral from panchromatic to multispectral pixels, without rotation
 */
public record Pair(Raster pan, int panBand, Raster multispectral, Affine toMultispectral) {

  /**
   * @throws RasterException where the scenes are of different systems, do not overlap, are turned against each other, or the
   *     multispectral pixels are not the larger ones
   */
  public static Pair of(Raster pan, Raster multispectral) {
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
          + ") do not overlap. Choose two scenes of the same ground.");
    }
    Affine map = multispectral.grid().affine().inverse().after(pan.grid().affine());
    double skew = Math.max(Math.abs(map.b()), Math.abs(map.d()));
    if (skew * Math.max(pan.grid().width(), pan.grid().height()) > 0.05
        || !(map.a() > 0)
        || !(map.e() > 0)) {
      throw new RasterException(
          "The pixels of the two scenes lie turned against each other. Orthorectify or warp one of them so that both are"
              + " north-up.");
    }
    Pair pair = new Pair(
        pan,
        pan.bandOf(BandRole.PAN).orElse(0),
        multispectral,
        new Affine(map.a(), 0, map.c(), 0, map.e(), map.f()));
    if (pair.ratio() < 1.2) {
      throw new RasterException(String.format(
          Locale.ROOT,
          "The multispectral pixels (%.3g) are not larger than the panchromatic ones (%.3g), so there is no detail to give"
              + " them. Check which scene is which.",
          multispectral.grid().pixelSize(),
          pan.grid().pixelSize()));
    }
    return pair;
  }

  /** Sides of panchromatic pixels in one of a multispectral pixel. */
  public double ratio() {
    return 1 / Math.sqrt(toMultispectral.a() * toMultispectral.e());
  }

  /**
   * Standard deviation, in panchromatic pixels, of the Gaussian whose contrast at the multispectral bands' Nyquist frequency
   * is that of their sensor (Aiazzi et al. 2006, Photogrammetric Engineering and Remote Sensing 72(5), 591-596).
   *
   * @param contrast from 0 to 1
   */
  double sigma(double contrast) {
    return ratio() * Math.sqrt(-2 * Math.log(contrast)) / Math.PI;
  }
}
