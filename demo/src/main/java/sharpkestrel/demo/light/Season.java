package sharpkestrel.demo.light;

import java.util.Arrays;
import sharpkestrel.demo.words.Labelled;

/** A time of the year and its weather: what leaves, grass, crops, soil and roofs look like then. */
public enum Season implements Labelled {
  /** Everything as its spectra have it. */
  LEAF_ON(4, 9),
  /** Bare trees, dull grass, young winter corn, a low sun. */
  LEAF_OFF(11, 3),
  /** Bleached grass, ripe and cut corn, pale soil. */
  DRY(6, 9),
  /** As without leaves, with snow in patches. */
  SNOW(1, 3),
  /** After rain: what soaks up water is dark, and puddles stand. */
  WET(4, 10);

  /** The months in which it is, in the north; from later to earlier across the new year. */
  public final int from;

  public final int to;

  Season(int from, int to) {
    this.from = from;
    this.to = to;
  }

  /**
   * The season of a label.
   *
   * @throws sharpkestrel.raster.RasterException that names those there are
   */
  public static Season of(String label) {
    return Labelled.of(values(), label, "A season");
  }

  public boolean isBare() {
    return this == LEAF_OFF || this == SNOW;
  }

  /** Reflectance of a material at this time; not to be changed. */
  public float[] spectrum(Material material) {
    return Spectra.ALL[ordinal()][material.ordinal()];
  }

  /** By season and material. */
  private static final class Spectra {
    static final float[][][] ALL = Arrays.stream(values())
        .map(season -> Arrays.stream(Material.values()).map(season::make).toArray(float[][]::new))
        .toArray(float[][][]::new);
  }

  private float[] make(Material material) {
    return switch (this) {
      case LEAF_ON -> material.spectrum();
      case LEAF_OFF, SNOW -> bare(material);
      case DRY -> dry(material);
      case WET -> wet(material);
    };
  }

  private static float[] with(Material material, Material other, double share, double factor) {
    float[] mixed = Material.mixed(material.spectrum(), other.spectrum(), share);
    for (int b = 0; b < mixed.length; b++) {
      mixed[b] *= (float) factor;
    }
    return mixed;
  }

  private static float[] bare(Material material) {
    return switch (material) {
      case BROADLEAF -> with(material, Material.TWIGS, 0.94, 1);
      case HEDGE -> with(material, Material.TWIGS, 0.7, 1);
      case PASTURE -> with(material, Material.DRY_GRASS, 0.3, 0.9);
      case MEADOW -> with(material, Material.DRY_GRASS, 0.5, 0.9);
      case WHEAT, OATS -> with(Material.PASTURE, Material.SOIL, 0.5, 1);
      case MAIZE -> with(Material.STUBBLE, Material.SOIL, 0.6, 0.9);
      case OILSEED -> with(Material.ROOTS, Material.SOIL, 0.35, 0.95);
      case ROOTS -> with(material, Material.SOIL, 0.7, 1);
      case RUSHES, HEATHER -> with(material, Material.DRY_GRASS, 0.3, 0.85);
      case SOIL, STUBBLE -> material.toned(0.85, 0);
      default -> material.spectrum();
    };
  }

  private static float[] dry(Material material) {
    return switch (material) {
      case PASTURE -> with(material, Material.DRY_GRASS, 0.65, 1.08);
      case MEADOW -> with(material, Material.DRY_GRASS, 0.8, 1.12);
      case RUSHES, MOOR -> with(material, Material.DRY_GRASS, 0.4, 1.05);
      case WHEAT, OATS -> with(material, Material.STUBBLE, 0.75, 1.1);
      case MAIZE, ROOTS -> with(material, Material.DRY_GRASS, 0.15, 1);
      case OILSEED -> with(Material.STUBBLE, Material.SOIL, 0.2, 1.05);
      case BROADLEAF, HEDGE -> with(material, Material.DRY_GRASS, 0.1, 1);
      case SOIL, PEAT, DUST -> material.toned(1.2, 0);
      case TURF_ROOF -> with(material, Material.DRY_GRASS, 0.5, 1.05);
      default -> material.spectrum();
    };
  }

  private static float[] wet(Material material) {
    return switch (material) {
      case SOIL, PEAT, STUBBLE -> material.toned(0.62, 0);
      case DUST, ADOBE -> material.toned(0.66, 0.01);
      case GRAVEL, SHINGLE, SAND, ROCK, PALE_ROCK, DYKE -> material.toned(0.72, 0);
      case CONCRETE, PAVING, CLINKER, BALLAST -> material.toned(0.68, 0);
      case ASPHALT -> material.toned(0.75, 0);
      case TILE_ROOF, CONCRETE_ROOF, SHINGLE_ROOF, FELT_ROOF -> material.toned(0.72, 0);
      case SLATE_ROOF -> material.toned(0.8, 0);
      case RUSTED_METAL_ROOF, BRICK, WALL, STONE_WALL, TIMBER -> material.toned(0.84, 0);
      default -> material.spectrum();
    };
  }
}
