package sharpkestrel.place.mosaic;

/** How the tones of the scenes of a block are made to agree. */
public enum Balance {
  NONE,
  /** A gain and an offset for each band of each scene. */
  LINEAR,
  /** A monotone curve for each band of each scene. */
  HISTOGRAM
}
