package sharpkestrel.demo.region;

import java.util.EnumMap;
import java.util.Map;
import sharpkestrel.demo.ground.Cover.Blend;
import sharpkestrel.demo.ground.Cover.Mixture;
import sharpkestrel.demo.ground.Parcel;
import sharpkestrel.demo.light.Material;

/** What grows on fields and in gardens, shared by the regions inland. */
final class Fields {

  private Fields() {}

  static Blend blend(
      Material with,
      double base,
      double broad,
      double damp,
      double bleached,
      double worn,
      double kept) {
    return new Blend(with, base, broad, damp, bleached, worn, kept);
  }

  /**
   * Crops, grass and trees.
   *
   * @param dry how bleached grass is, 0 to 1
   * @param soil what shows between the rows
   */
  static Map<Parcel.Use, Mixture> crops(double dry, Material soil) {
    Map<Parcel.Use, Mixture> crops = new EnumMap<>(Parcel.Use.class);
    crops.put(
        Parcel.Use.WHEAT,
        Mixture.of(
                Material.WHEAT,
                blend(Material.OATS, 0.25, 0.5, 0.4, -0.4, 0.3, 0),
                blend(soil, -0.05, 0, 0, 0.2, 0.5, 0))
            .inRows(3.1, 0.03));
    crops.put(
        Parcel.Use.MAIZE,
        Mixture.of(Material.MAIZE, blend(soil, 0.08, -0.2, -0.2, 0.1, 0.4, 0)).inRows(1.5, 0.09));
    crops.put(
        Parcel.Use.OILSEED,
        Mixture.of(Material.OILSEED, blend(Material.ROOTS, 0.2, 0.4, 0.2, -0.2, 0.5, 0))
            .inRows(4.2, 0.02));
    crops.put(
        Parcel.Use.PLOUGHED,
        Mixture.of(soil, blend(Material.STUBBLE, 0.1, 0.2, -0.2, 0.2, 0.4, 0)).inRows(1.9, 0.08));
    crops.put(
        Parcel.Use.STUBBLE,
        Mixture.of(Material.STUBBLE, blend(soil, 0.2, 0, 0, 0, 0.5, 0)).inRows(2.8, 0.07));
    crops.put(
        Parcel.Use.PASTURE,
        Mixture.of(
            Material.PASTURE,
            blend(Material.MEADOW, 0.25, 0.4, -0.2, 0.3, 0.5, 0),
            blend(Material.DRY_GRASS, dry - 0.1, 0.2, -0.3, 0.5, 0.4, 0)));
    crops.put(
        Parcel.Use.MEADOW,
        Mixture.of(Material.MEADOW, blend(Material.DRY_GRASS, dry, 0.2, -0.4, 0.5, 0.4, 0))
            .inRows(6.5, 0.04));
    crops.put(
        Parcel.Use.ORCHARD,
        Mixture.of(
            Material.MEADOW,
            blend(soil, 0.05, 0, 0, 0.2, 0.5, 0),
            blend(Material.DRY_GRASS, dry - 0.1, 0, -0.3, 0.4, 0.3, 0)));
    crops.put(
        Parcel.Use.WOOD,
        Mixture.of(
            Material.SCRUB,
            blend(Material.MEADOW, 0.2, 0.3, 0, 0, 0.5, 0),
            blend(soil, 0.1, 0, 0, 0, 0.4, 0)));
    crops.put(
        Parcel.Use.PARK,
        Mixture.of(
            Material.PASTURE,
            blend(Material.MEADOW, 0.35, 0.4, 0, 0.2, 0.4, 0.1),
            blend(Material.DRY_GRASS, dry - 0.15, 0.2, -0.2, 0.5, 0.4, 0),
            blend(Material.GRAVEL, -0.55, 0, 0, 0, 1.1, 0.2)));
    return crops;
  }

  /** Lawns and beds, worn here and there. */
  static Mixture gardens(double dry, Material bare) {
    return Mixture.of(
        Material.PASTURE,
        blend(Material.MEADOW, 0.3, 0.2, 0, 0.2, 0.4, 0.4),
        blend(Material.DRY_GRASS, dry - 0.15, 0.1, -0.3, 0.4, 0.4, 0.25),
        blend(Material.HEDGE, -0.35, 0, 0, 0, 0.7, -0.5),
        blend(bare, -0.25, 0, 0, 0, 0.9, 0.35),
        blend(Material.GRAVEL, -0.6, 0, 0, 0, 1.1, 0.2));
  }
}
