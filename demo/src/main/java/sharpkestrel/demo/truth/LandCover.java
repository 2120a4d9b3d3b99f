package sharpkestrel.demo.truth;

import java.util.Locale;
import java.util.Optional;
import sharpkestrel.demo.light.Material;

/** Nine classes of what covers the ground, alike for all regions. Snow and what lies under it are of none. */
public enum LandCover {
  WATER,
  /** Sand, stones, rock, soil and dust. */
  BARE,
  GRASS,
  CROPS,
  /** Moor, heath, scrub, rushes and weed. */
  LOW_PLANTS,
  TREES,
  /** Roads, yards and pavements. */
  SEALED,
  BUILDING,
  /** Whatever else stands or lies there: vehicles, vessels, containers, stacks, glass. */
  THING;

  public String label() {
    return name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  /** The class of a material. */
  public static Optional<LandCover> of(Material material) {
    return switch (material) {
      case WATER, SURF, LAKE_WATER, POOL -> Optional.of(WATER);
      case SHINGLE, SAND, ROCK, PALE_ROCK, LICHEN, PEAT, SOIL, DUST -> Optional.of(BARE);
      case PASTURE, MEADOW, DRY_GRASS -> Optional.of(GRASS);
      case OATS, STUBBLE, ROOTS, WHEAT, MAIZE, OILSEED -> Optional.of(CROPS);
      case RUSHES, MOOR, HEATHER, WEED, SCRUB -> Optional.of(LOW_PLANTS);
      case BROADLEAF, CONIFER, HEDGE, TWIGS -> Optional.of(TREES);
      case ASPHALT,
          WET_ASPHALT,
          GRAVEL,
          CONCRETE,
          PAINT_LINE,
          MARK,
          PAVING,
          CLINKER,
          BALLAST,
          STEEL -> Optional.of(SEALED);
      case WALL, STONE_WALL, WINDOW, BRICK, ADOBE -> Optional.of(BUILDING);
      case SNOW -> Optional.empty();
      default -> Optional.of(material.isRoof() ? BUILDING : THING);
    };
  }

  /** Its number in files; 0 is none. */
  public static int code(Material material) {
    return of(material).map(cover -> cover.ordinal() + 1).orElse(0);
  }
}
