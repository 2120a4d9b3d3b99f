package sharpkestrel.sharpen.texture;

/** How values are sorted into grey levels. */
public enum Binning {
  EQUAL_WIDTH,
  EQUAL_POPULATION,
  CUTS
}
