package sharpkestrel.step;

/** What is offered for an input; what does not suit is not put before anybody. */
public enum Suits {
  /** Not placed yet, with a sensor model. */
  RAW,
  /** Neither in a coordinate system nor with a sensor model. */
  UNPLACED,
  /** In a coordinate system. */
  PLACED,
  ONE_BAND,
  SEVERAL_BANDS,
  /** Numbers of the sensor, not reflectance. */
  NUMBERS,
  /** With what turns its numbers into reflectance. */
  WITH_GAINS,
  /** Objects that have no features yet. */
  UNMEASURED,
  /** Objects with features. */
  MEASURED,
  /** Clusters that have no names of their own yet. */
  CLUSTERS,
  /** How probable classes are, a band each. */
  PROBABILITIES,
  /** A class for each pixel, by names. */
  CLASS_MAP,
  /** Outlines of their own, not those that objects could have. */
  OUTLINES,
  /** For outlines: objects serve too, by their exact borders. */
  OBJECTS,
  /** For outlines: points and lines serve too, not areas alone. */
  POINTS
}
