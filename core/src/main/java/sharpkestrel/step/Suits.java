package sharpkestrel.step;

/** What is offered for an input; what does not suit is not put before anybody. */
public enum Suits {
  /** Not placed yet, with a sensor model. */
  RAW,
  /** In a coordinate system. */
  PLACED,
  ONE_BAND,
  SEVERAL_BANDS,
  /** Numbers of the sensor, not reflectance. */
  NUMBERS,
  /** For outlines: objects serve too, by their exact borders. */
  OBJECTS
}
