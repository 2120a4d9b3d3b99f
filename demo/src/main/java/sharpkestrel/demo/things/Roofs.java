package sharpkestrel.demo.things;

import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Pattern;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;

/** Roof and wall surfaces as they come: new and weathered, mossy, rusted, painted. */
final class Roofs {

  private Roofs() {}

  /**
   * A roof of a material, with its own age, wetness and paint.
   *
   * @param direction of the ridge
   */
  static Surface roof(Material material, Chance chance, double direction) {
    double tilt;
    switch (material) {
      case TURF_ROOF -> {
        // from green and wet to bleached, as the sward beside it
        float[] green = material.toned(chance.between(0.75, 1.15), 0.02 * chance.gaussian());
        float[] dry = Material.DRY_GRASS.toned(chance.between(0.75, 1.2), 0.02 * chance.gaussian());
        double share = Math.min(1, Math.max(0, 0.42 + 0.30 * chance.gaussian()));
        return Surface.of(material, Material.mixed(green, dry, share))
            .with(Pattern.TUFTS, dry, chance.between(0.1, 0.5), direction);
      }
      case SLATE_ROOF -> {
        tilt = 0.022 * chance.gaussian();
        float[] slate = material.toned(Math.exp(0.22 * chance.gaussian()), tilt);
        float[] moss = Material.mixed(slate, Material.LICHEN.spectrum(), chance.between(0.2, 0.8));
        double share = chance.happens(0.35) ? chance.between(0.1, 0.5) : 0.03;
        return Surface.of(material, slate).with(Pattern.COURSES, moss, share, direction);
      }
      case METAL_ROOF -> {
        // bare and bright, weathered zinc, or painted in a pale colour
        double age = chance.unit();
        double factor = age < 0.62 ? chance.between(0.72, 1.14) : chance.between(0.42, 0.72);
        tilt = 0.026 * chance.gaussian();
        float[] sheet = material.toned(factor, tilt);
        float[] stain =
            Material.mixed(sheet, Material.RUSTED_METAL_ROOF.spectrum(), chance.between(0.15, 0.6));
        double share = chance.happens(0.3) ? chance.between(0.05, 0.3) : 0.0;
        return Surface.of(material, sheet).with(Pattern.SHEETS, stain, share, direction);
      }
      case RUSTED_METAL_ROOF -> {
        float[] rust = material.toned(Math.exp(0.2 * chance.gaussian()), 0.03 * chance.gaussian());
        float[] sheet = Material.METAL_ROOF.toned(chance.between(0.35, 0.8), 0);
        return Surface.of(material, rust)
            .with(Pattern.SHEETS, sheet, chance.between(0.05, 0.45), direction);
      }
      case FELT_ROOF -> {
        tilt = 0.03 * chance.gaussian();
        float[] felt = material.toned(Math.exp(0.3 * chance.gaussian()), tilt);
        float[] seam = Material.mixed(felt, Material.WET_ASPHALT.spectrum(), 0.6);
        return Surface.of(material, felt).with(Pattern.RIM, seam, 0.35, direction);
      }
      case TILE_ROOF -> {
        float[] tile = material.toned(Math.exp(0.2 * chance.gaussian()), 0.03 * chance.gaussian());
        float[] old = Material.mixed(tile, Material.LICHEN.spectrum(), chance.between(0.25, 0.8));
        double share = chance.happens(0.45) ? chance.between(0.1, 0.5) : 0.04;
        return Surface.of(material, tile).with(Pattern.COURSES, old, share, direction);
      }
      case CONCRETE_ROOF, MEMBRANE_ROOF -> {
        // swept or dusty, patched, with a parapet round it
        float[] slab = material.toned(
            Math.exp((material == Material.CONCRETE_ROOF ? 0.32 : 0.18) * chance.gaussian()),
            0.025 * chance.gaussian());
        float[] dusty = Material.mixed(slab, Material.DUST.spectrum(), chance.between(0, 0.45));
        float[] rim = Material.mixed(dusty, Material.WALL.spectrum(), chance.between(0, 0.7));
        return Surface.of(material, dusty).with(Pattern.RIM, rim, 0.28, direction);
      }
      case SHINGLE_ROOF -> {
        float[] grit = material.toned(Math.exp(0.3 * chance.gaussian()), 0.035 * chance.gaussian());
        float[] worn = Material.mixed(grit, Material.GRAVEL.spectrum(), chance.between(0.1, 0.4));
        return Surface.of(material, grit)
            .with(Pattern.COURSES, worn, chance.between(0, 0.3), direction);
      }
      default -> {
        return Surface.of(
            material, material.toned(Math.exp(0.15 * chance.gaussian()), 0.02 * chance.gaussian()));
      }
    }
  }

  /** A wall: harled in white or a pale colour, or bare stone, or sheets. */
  static Surface wall(Chance chance, boolean works) {
    if (works) {
      float[] sheet = Material.PAINT.toned(chance.between(0.5, 1.4), 0.06 * chance.gaussian());
      return Surface.of(Material.WALL, sheet)
          .with(Pattern.WINDOWS, Material.WINDOW.spectrum(), 0.15, 0);
    }
    boolean bare = chance.happens(0.3);
    Material material = bare ? Material.STONE_WALL : Material.WALL;
    float[] rho =
        material.toned(Math.exp(0.16 * chance.gaussian()), 0.02 + 0.025 * chance.gaussian());
    return Surface.of(material, rho).with(Pattern.WINDOWS, Material.WINDOW.spectrum(), 0.5, 0);
  }
}
