package sharpkestrel.demo.region;

import static sharpkestrel.demo.ground.Parcel.Use.*;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.demo.ground.Cover;
import sharpkestrel.demo.ground.Cover.Mixture;
import sharpkestrel.demo.ground.GroundPlan;
import sharpkestrel.demo.ground.Lowland;
import sharpkestrel.demo.ground.LowlandPlan;
import sharpkestrel.demo.ground.LowlandPlan.Zone;
import sharpkestrel.demo.ground.Parcel;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.demo.ground.Streets;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.things.Taste;

/** Walled yards with flat roofs along streets of earth; bare ground, terraces and scrub beyond. */
final class Plateau implements Region.Inland {

  static final Plateau INSTANCE = new Plateau();

  private static final Zone CORE =
      new Zone(2600, 5600, 0.07, true, List.of(YARDS, ROWS, WORKS, PARK), 84, 8, 5, 3);
  private static final Zone EDGE =
      new Zone(3000, 7500, 0.12, true, List.of(YARDS, OPEN, WORKS, PLOUGHED), 58, 26, 6, 10);
  private static final Zone HAMLET =
      new Zone(1800, 4000, 0.2, false, List.of(YARDS, OPEN, PLOUGHED), 40, 36, 24);
  private static final Zone LAND = new Zone(
      3000,
      22000,
      0.2,
      false,
      List.of(OPEN, PLOUGHED, STUBBLE, WHEAT, PASTURE, ORCHARD),
      60,
      13,
      9,
      9,
      5,
      4);

  @Override
  public GroundPlan ground(Region.Site site) {
    Map<Parcel.Use, Mixture> crops = new EnumMap<>(Fields.crops(0.8, Material.DUST));
    Mixture bare = Mixture.of(
        Material.DUST,
        Fields.blend(Material.GRAVEL, 0.2, 0.4, 0, 0, 0.8, 0.3),
        Fields.blend(Material.DRY_GRASS, 0.0, 0.2, 0.5, -0.2, 0.5, 0),
        Fields.blend(Material.SOIL, -0.2, 0.3, 0.4, 0, 0.7, -0.3),
        Fields.blend(Material.CONCRETE, -0.5, 0, 0, 0, 0.9, 0.5));
    crops.put(YARDS, bare);
    crops.put(ROWS, bare);
    crops.put(WORKS, bare);
    crops.put(PARK, bare);
    Mixture open = new Mixture(
        Material.DUST,
        0,
        0,
        0.2,
        List.of(
            Fields.blend(Material.DRY_GRASS, 0.3, 0.6, 0.4, -0.4, 0.7, 0),
            Fields.blend(Material.GRAVEL, 0.1, -0.4, 0, 0.3, 0.8, 0),
            Fields.blend(Material.PALE_ROCK, -0.45, 0.6, -0.5, 0.5, 0.7, 0),
            Fields.blend(Material.SCRUB, -0.35, 0.3, 0.6, 0, 1.2, 0)));
    Cover cover =
        new Cover(open, crops, false, Map.of(), Material.DUST, Material.RUSHES, Material.CONCRETE);
    return new LowlandPlan(
        new Lowland.Form(site.east(), site.north(), 2470, 70, 1700, 14, 0, 800),
        340,
        (away, slow, draw) -> away < 620 + 120 * slow
            ? CORE
            : away < 1050 + 260 * slow ? EDGE : draw < 0.12 ? HAMLET : LAND,
        new Streets.Kinds(
            Road.Kind.MAIN, Road.Kind.DIRT, Road.Kind.DIRT, Road.Kind.TRACK, Road.Kind.TRACK, 0.35),
        cover,
        false);
  }

  @Override
  public Taste taste() {
    return new Taste(
        List.of(
            Material.CONCRETE_ROOF,
            Material.METAL_ROOF,
            Material.RUSTED_METAL_ROOF,
            Material.TILE_ROOF,
            Material.MEMBRANE_ROOF),
        new double[] {58, 18, 12, 8, 4},
        new double[] {26, 44, 18, 4, 8},
        0.1,
        0.05,
        new double[] {0.2, 0.42},
        new double[] {2.8, 7},
        List.of(Material.ADOBE, Material.BRICK, Material.WALL),
        new double[] {46, 34, 20},
        new double[] {190, 560},
        Material.ADOBE,
        0.85,
        0.004,
        0.08,
        0.62,
        0.7,
        0.22,
        0.05);
  }

  @Override
  public double[] bounds() {
    return new double[] {30, 2, 68};
  }
}
