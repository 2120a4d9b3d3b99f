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

/** Large fields and hedges, woods and orchards, farmsteads with large sheds, silos and glass. */
final class Farmland implements Region.Inland {

  static final Farmland INSTANCE = new Farmland();

  private static final Zone LAND = new Zone(
      14_000,
      56_000,
      0.08,
      false,
      List.of(WHEAT, PASTURE, MAIZE, WOOD, PLOUGHED, OILSEED, MEADOW, STUBBLE, ORCHARD, STEADING),
      24,
      17,
      10,
      12,
      8,
      8,
      7,
      5,
      4,
      9);
  private static final Zone SMALL = new Zone(
      5000,
      16_000,
      0.12,
      false,
      List.of(PASTURE, MEADOW, ORCHARD, WOOD, WHEAT, STEADING, HOUSES),
      28,
      18,
      12,
      14,
      8,
      12,
      8);
  private static final Zone VILLAGE = new Zone(
      3200,
      8000,
      0.18,
      false,
      List.of(HOUSES, STEADING, PARK, ORCHARD, PASTURE, WORKS),
      46,
      20,
      8,
      12,
      10,
      4);

  @Override
  public GroundPlan ground(Region.Site site) {
    Map<Parcel.Use, Mixture> crops = new EnumMap<>(Fields.crops(0.12, Material.SOIL));
    crops.put(HOUSES, Fields.gardens(0.12, Material.SOIL));
    crops.put(STEADING, Fields.gardens(0.2, Material.GRAVEL));
    crops.put(
        WORKS,
        Mixture.of(
            Material.CONCRETE,
            Fields.blend(Material.GRAVEL, 0.3, 0.4, 0, 0, 0.8, 0.06),
            Fields.blend(Material.PASTURE, -0.3, 0, 0.2, 0, 0.7, -0.3)));
    Cover cover = new Cover(
        crops.get(PASTURE),
        crops,
        false,
        Map.of(),
        Material.GRAVEL,
        Material.RUSHES,
        Material.STONE_WALL);
    return new LowlandPlan(
        new Lowland.Form(site.east(), site.north(), 30, 44, 1900, 8, 7, 0),
        620,
        (away, slow, draw) -> away < 480 || draw < 0.09 ? VILLAGE : slow > 0.3 ? SMALL : LAND,
        new Streets.Kinds(
            Road.Kind.MINOR, Road.Kind.LANE, Road.Kind.LANE, Road.Kind.MINOR, Road.Kind.TRACK, 0.5),
        cover,
        false);
  }

  @Override
  public Taste taste() {
    return new Taste(
        List.of(
            Material.TILE_ROOF,
            Material.SLATE_ROOF,
            Material.METAL_ROOF,
            Material.RUSTED_METAL_ROOF,
            Material.CONCRETE_ROOF,
            Material.FELT_ROOF),
        new double[] {50, 28, 8, 2, 4, 8},
        new double[] {8, 6, 40, 14, 28, 4},
        0.02,
        0.25,
        new double[] {0.55, 1.0},
        new double[] {2.8, 6},
        List.of(Material.BRICK, Material.WALL, Material.STONE_WALL),
        new double[] {56, 32, 12},
        new double[] {500, 1500},
        Material.HEDGE,
        0.6,
        0.03,
        0.14,
        0.1,
        3.2,
        0.4,
        0.15);
  }

  @Override
  public double[] bounds() {
    return new double[] {2, 62, 36};
  }
}
