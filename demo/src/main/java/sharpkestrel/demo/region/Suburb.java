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

/** Detached houses with pools and panels; works with halls, car parks and containers; avenues. */
final class Suburb implements Region.Inland {

  static final Suburb INSTANCE = new Suburb();

  private static final Zone HOMES =
      new Zone(4600, 9500, 0.05, true, List.of(HOUSES, PARK, ROWS), 90, 7, 3);
  private static final Zone CLOSE =
      new Zone(2200, 4600, 0.05, true, List.of(HOUSES, ROWS, WORKS, PARK), 58, 22, 8, 12);
  private static final Zone HALLS =
      new Zone(9000, 42_000, 0.03, true, List.of(WORKS, PARK, MEADOW), 86, 7, 7);
  private static final Zone OPEN_LAND = new Zone(
      16_000, 50_000, 0.1, false, List.of(MEADOW, PARK, WOOD, PLOUGHED, MAIZE), 34, 20, 24, 12, 10);

  @Override
  public GroundPlan ground(Region.Site site) {
    Map<Parcel.Use, Mixture> crops = new EnumMap<>(Fields.crops(0.35, Material.SOIL));
    crops.put(HOUSES, Fields.gardens(0.3, Material.SOIL));
    crops.put(
        ROWS,
        Mixture.of(
            Material.CONCRETE,
            Fields.blend(Material.ASPHALT, 0.2, 0.3, 0, 0, 0.6, 0.5),
            Fields.blend(Material.PASTURE, 0.0, 0, 0.2, 0, 0.5, 0.7)));
    crops.put(
        WORKS,
        Mixture.of(
            Material.ASPHALT,
            Fields.blend(Material.CONCRETE, 0.12, 0.3, 0, 0, 0.5, 0.06),
            Fields.blend(Material.GRAVEL, -0.25, 0.3, 0, 0, 0.9, 0),
            Fields.blend(Material.DRY_GRASS, -0.4, 0, 0.2, 0.2, 0.9, 0)));
    Cover cover = new Cover(
        crops.get(MEADOW),
        crops,
        true,
        Map.of(),
        Material.PAVING,
        Material.RUSHES,
        Material.CONCRETE);
    return new LowlandPlan(
        new Lowland.Form(site.east(), site.north(), 42, 22, 2600, 3, 0, 0),
        520,
        (away, slow, draw) -> away < 260
            ? draw < 0.5 ? HOMES : HALLS
            : slow > 0.16
                ? draw < 0.86 ? HALLS : OPEN_LAND
                : draw < 0.62 ? HOMES : draw < 0.84 ? CLOSE : OPEN_LAND,
        new Streets.Kinds(
            Road.Kind.AVENUE,
            Road.Kind.STREET,
            Road.Kind.STREET,
            Road.Kind.MINOR,
            Road.Kind.TRACK,
            0.4),
        cover,
        true);
  }

  @Override
  public Taste taste() {
    return new Taste(
        List.of(
            Material.SHINGLE_ROOF,
            Material.TILE_ROOF,
            Material.METAL_ROOF,
            Material.MEMBRANE_ROOF,
            Material.FELT_ROOF,
            Material.CONCRETE_ROOF),
        new double[] {48, 30, 10, 3, 5, 4},
        new double[] {0, 0, 30, 40, 14, 16},
        0.02,
        0.6,
        new double[] {0.3, 0.7},
        new double[] {2.6, 6.2},
        List.of(Material.WALL, Material.BRICK),
        new double[] {60, 40},
        new double[] {420, 1000},
        Material.HEDGE,
        0.5,
        0.24,
        0.24,
        0.4,
        5.0,
        0.85,
        0.12);
  }

  @Override
  public double[] bounds() {
    return new double[] {4, 30, 66};
  }
}
