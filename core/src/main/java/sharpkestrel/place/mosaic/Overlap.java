package sharpkestrel.place.mosaic;

/** What is shown where several scenes have pixels. */
public enum Overlap {
  /** The scene whose side of the seam it is. */
  SEAMS,
  FIRST,
  LAST,
  MEAN,
  MINIMUM,
  MAXIMUM,
  /** The scene that was taken nearest to the vertical. */
  MOST_NADIR,
  /** All, each weighing the more the farther from its own edge. */
  FEATHERED
}
