package sharpkestrel.demo.ground;

import java.util.List;
import java.util.Map;
import sharpkestrel.demo.light.Material;

/**
 * What covers the ground of a region, told as mixtures: a first material, and others laid over it where the ground is as they
 * like it.
 *
 * @param open untilled land, and what {@code crops} does not name
 * @param crops by use of the parcel; gardens, courts, yards and aprons are uses as well
 * @param roads what roads of a kind are of, where it is not asphalt, gravel or earth
 * @param pavement beside streets in built land
 * @param woods whether trees grow by themselves
 * @param bank along a river, and {@code quay} where it is walled
 */
public record Cover(
    Mixture open,
    Map<Parcel.Use, Mixture> crops,
    boolean woods,
    Map<Road.Kind, Material> roads,
    Material pavement,
    Material bank,
    Material quay) {

  /**
   * A mixture.
   *
   * @param rows metres from row to row; 0 for none
   * @param depth by how much rows darken and brighten
   * @param tufts how much tufts and clods turn the ground to and from the sun
   */
  public record Mixture(
      Material first, double rows, double depth, double tufts, List<Blend> blends) {

    public static Mixture of(Material first, Blend... blends) {
      return new Mixture(first, 0, 0, 0.12, List.of(blends));
    }

    public Mixture inRows(double spacing, double darkening) {
      return new Mixture(first, spacing, darkening, tufts, blends);
    }
  }

  /**
   * A material laid over what is there, with a share of {@code base} and so much more for each unit of a field, all of which run
   * from -1 to 1 or so.
   *
   * @param broad patches of tens of metres
   * @param damp wetness of the ground, and {@code bleached} where it is dry
   * @param worn patches of some metres
   * @param kept plots of ten metres or so, each kept in its own way
   */
  public record Blend(
      Material with,
      double base,
      double broad,
      double damp,
      double bleached,
      double worn,
      double kept) {

    public double share(
        double broadHere, double dampHere, double bleachedHere, double wornHere, double keptHere) {
      return base
          + broad * broadHere
          + damp * dampHere
          + bleached * bleachedHere
          + worn * wornHere
          + kept * keptHere;
    }
  }
}
