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

/** Rows of tiled houses about courts on a river; villages, orchards and small fields beyond. */
final class OldTown implements Region.Inland {

  static final OldTown INSTANCE = new OldTown();

  private static final Zone CORE =
      new Zone(1900, 4200, 0.24, false, List.of(ROWS, PARK, WORKS, HOUSES), 90, 5, 2, 3);
  private static final Zone EDGE = new Zone(
      2600,
      6500,
      0.2,
      false,
      List.of(HOUSES, ROWS, WORKS, ORCHARD, PARK, MEADOW),
      44,
      20,
      9,
      11,
      8,
      8);
  private static final Zone VILLAGE = new Zone(
      2200,
      5200,
      0.25,
      false,
      List.of(HOUSES, ROWS, STEADING, ORCHARD, PASTURE),
      42,
      14,
      14,
      20,
      10);
  private static final Zone LAND = new Zone(
      3500,
      16000,
      0.14,
      false,
      List.of(WHEAT, MAIZE, PLOUGHED, MEADOW, PASTURE, ORCHARD, WOOD, STUBBLE, OILSEED, STEADING),
      22,
      12,
      12,
      12,
      10,
      12,
      9,
      5,
      4,
      2);

  @Override
  public GroundPlan ground(Region.Site site) {
    Map<Parcel.Use, Mixture> crops = new EnumMap<>(Fields.crops(0.3, Material.SOIL));
    crops.put(
        ROWS,
        Mixture.of(
            Material.PAVING,
            Fields.blend(Material.GRAVEL, 0.1, 0.2, 0, 0, 0.7, 0.3),
            Fields.blend(Material.CLINKER, -0.15, 0.4, 0, 0, 0.3, 0.9),
            Fields.blend(Material.SOIL, -0.2, 0, 0, 0, 0.8, -0.4),
            Fields.blend(Material.PASTURE, -0.25, 0, 0.3, 0, 0.5, 0.6)));
    crops.put(HOUSES, Fields.gardens(0.3, Material.SOIL));
    crops.put(STEADING, Fields.gardens(0.35, Material.GRAVEL));
    crops.put(
        WORKS,
        Mixture.of(
            Material.GRAVEL,
            Fields.blend(Material.CONCRETE, 0.2, 0.4, 0, 0, 0.8, 0.06),
            Fields.blend(Material.DRY_GRASS, -0.3, 0, 0.2, 0, 0.7, -0.3)));
    Cover cover = new Cover(
        crops.get(MEADOW),
        crops,
        true,
        Map.of(Road.Kind.LANE, Material.PAVING),
        Material.PAVING,
        Material.SCRUB,
        Material.STONE_WALL);
    return new LowlandPlan(
        new Lowland.Form(site.east(), site.north(), 24, 70, 2100, 9, 34, 620),
        300,
        (away, slow, draw) -> away < 560 + 70 * slow
            ? CORE
            : away < 900 + 160 * slow ? EDGE : draw < 0.13 ? VILLAGE : LAND,
        new Streets.Kinds(
            Road.Kind.STREET,
            Road.Kind.STREET,
            Road.Kind.LANE,
            Road.Kind.MINOR,
            Road.Kind.TRACK,
            0.4),
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
            Material.FELT_ROOF,
            Material.CONCRETE_ROOF),
        new double[] {76, 7, 5, 2, 6, 4},
        new double[] {30, 4, 26, 14, 14, 12},
        0.02,
        0.12,
        new double[] {0.5, 0.95},
        new double[] {5, 13},
        List.of(Material.WALL, Material.STONE_WALL, Material.BRICK),
        new double[] {66, 20, 14},
        new double[] {260, 800},
        Material.STONE_WALL,
        0.5,
        0.03,
        0.05,
        0.2,
        2.6,
        0.7,
        0.45);
  }

  @Override
  public double[] bounds() {
    return new double[] {14, 30, 56};
  }
}
