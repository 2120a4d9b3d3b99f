package sharpkestrel.demo.things;

import java.util.List;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Pattern;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;

/**
 * How people build in a region inland. Shares of things are 0 to 1.
 *
 * @param roofs what roofs are made of, {@code houses} how often on houses, {@code works} on halls and barns
 * @param flat share of houses with flat roofs, {@code hip} of the others with hips
 * @param pitch rise of the other roofs for a metre, at least and at most
 * @param eaves height of walls, metres, at least and at most
 * @param walls what walls are made of, and {@code wallShares}
 * @param plot square metres of a plot of a house, at least and at most
 * @param bound what parts plots, and {@code bounded} how many are parted so
 * @param pools in plots of houses; {@code solar} on roofs; {@code tanks} on flat ones; {@code crowns} of trees in a plot
 * @param paved yards and courts that are, and {@code clinker} how many of those with red bricks
 */
public record Taste(
    List<Material> roofs,
    double[] houses,
    double[] works,
    double flat,
    double hip,
    double[] pitch,
    double[] eaves,
    List<Material> walls,
    double[] wallShares,
    double[] plot,
    Material bound,
    double bounded,
    double pools,
    double solar,
    double tanks,
    double crowns,
    double paved,
    double clinker) {

  /** What a house is roofed with. */
  Material houseRoof(Chance chance) {
    return chance.pick(roofs(), houses());
  }

  /** What a hall or a barn is roofed with. */
  Material workRoof(Chance chance) {
    return chance.pick(roofs(), works());
  }

  /** An order for a house under such a roof as is built here. */
  Builder.Order house(
      Building.Use use,
      Building.Shape shape,
      Material roof,
      double length,
      double width,
      double eaves,
      Chance chance) {
    boolean flat = isFlat(roof) || chance.happens(flat());
    Builder.Form form =
        flat ? Builder.Form.FLAT : chance.happens(hip()) ? Builder.Form.HIP : Builder.Form.GABLE;
    double steep = roof == Material.METAL_ROOF || roof == Material.RUSTED_METAL_ROOF ? 0.6 : 1;
    double pitch = flat ? 0 : steep * chance.between(pitch()[0], pitch()[1]);
    return new Builder.Order(use, shape, roof, form, length, width, eaves, pitch);
  }

  /** A house or a hall, as they are built here today. */
  Builder.Order today(Chance chance) {
    boolean hall = chance.happens(0.25);
    Material roof = hall ? workRoof(chance) : houseRoof(chance);
    return house(
        hall ? Building.Use.WORKS : Building.Use.DWELLING,
        chance.happens(0.6) ? Building.Shape.OBLONG : Building.Shape.ELL,
        roof,
        hall ? chance.between(18, 46) : chance.between(8, 16),
        hall ? chance.between(11, 24) : chance.between(6, 10),
        hall ? chance.between(4, 8) : wallHeight(chance),
        chance);
  }

  static boolean isFlat(Material roof) {
    return roof == Material.CONCRETE_ROOF
        || roof == Material.MEMBRANE_ROOF
        || roof == Material.FELT_ROOF;
  }

  /** How high the walls of a house are, metres. */
  double wallHeight(Chance chance) {
    return chance.between(eaves()[0], eaves()[1]);
  }

  /** A wall: sheets on halls. */
  Surface wall(Chance chance, boolean works) {
    if (works) {
      return Roofs.wall(chance, true);
    }
    Material material = chance.pick(walls(), wallShares());
    float[] rho =
        material.toned(Math.exp(0.18 * chance.gaussian()), 0.02 + 0.025 * chance.gaussian());
    return Surface.of(material, rho).with(Pattern.WINDOWS, Material.WINDOW.spectrum(), 0.4, 0);
  }
}
