package sharpkestrel.segment;

import sharpkestrel.segment.regions.FeatureSpace;

/**
 * What merging two neighbouring regions costs:
 *
 * <pre>  |A| |B| / (|A| + |B|) / length(A, B)
 *    * sum over parts of  weight * d^(2 - edges) * s^edges / (floor + v)
 *    * (144 det M / |A ∪ B|²)^form</pre>
 *
 * <p>The first factor and the squared distance {@code d} of the means are those of the full lambda schedule (Redding,
 * Crisp, Tang and Newsam 1999; after Koepfler, Lopez and Morel 1994, SIAM J. Numer. Anal. 31(1), 282-299), which minimises
 * the piecewise constant functional of Mumford and Shah with its weight rising from 0. Four things are ours:
 *
 * <ul>
 *   <li>{@code s}, the contrast across the common border, stands for one of the two powers of the distance: ground that
 *       changes slowly has none, roofs have;
 *   <li>{@code v}, the variance within the two regions, is the scale on which a distance counts: what is rough merges
 *       sooner than what is smooth;
 *   <li>{@code M}, the second moments of the union on the ground: for any rectangle {@code 144 det M} is its area squared,
 *       for whatever fills its rectangle less it is more;
 *   <li>from {@code s} goes what sides of superpixels within the two regions show on average, {@code g}, where the texture
 *       weight {@code t} is above 0: {@code max(0.1 s, s - t g l / (l + 2000))} with the length {@code l} of all sides within, in
 *       pixels. Without it a wood, or water under haze, is parted where its light has slowly changed enough, along whatever
 *       line is straight: texture and noise count as a border there. Heights have none. Roofs are told better without.
 * </ul>
 *
 * @param light weight of the mean over the bands; low, as the lit and the shaded side of a roof differ in it
 * @param colour weight of what bands have beyond the mean
 * @param height weight of the height above the ground, whose variance does not count
 * @param layers weight of further rasters
 * @param edges 0: distance of means alone; 1: as much by contrast across the border
 * @param form 0: any form; 1 and more: rectangles first
 * @param texture 0: borders as they are; 1: less the texture within
 */
record Criterion(
    double light,
    double colour,
    double height,
    double layers,
    double edges,
    double form,
    double texture) {

  static final Criterion STANDARD = new Criterion(0.2, 1, 1, 0.2, 1, 1, 0);

  /** Sides within two regions at which half of their texture counts: that of smaller ones is not well known. */
  private static final double KNOWN_SIDES = 2000;

  /** Share of a border that stays, however rough the two sides are. */
  private static final double LEAST_BORDER = 0.1;

  /**
   * What a border's contrast is beyond the texture on both sides.
   *
   * @param contrast on average over the border's sides
   * @param sides within the two regions, in pixels
   * @param within contrast summed over these
   */
  double beyondTexture(double contrast, double sides, double within) {
    return texture == 0 || sides == 0
        ? contrast
        : Math.max(LEAST_BORDER * contrast, contrast - texture * within / (sides + KNOWN_SIDES));
  }

  double weight(FeatureSpace.Kind kind) {
    return switch (kind) {
      case LIGHT -> light;
      case COLOUR -> colour;
      case HEIGHT -> height;
      case LAYERS -> layers;
    };
  }

  /** Variance below which a region counts as smooth; infinite where the variance does not count. */
  static double floor(FeatureSpace.Kind kind) {
    return switch (kind) {
      case LIGHT, LAYERS -> 1;
      case COLOUR -> 0.2;
      case HEIGHT -> Double.POSITIVE_INFINITY;
    };
  }
}
