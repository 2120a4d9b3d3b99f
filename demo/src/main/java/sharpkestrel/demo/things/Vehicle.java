package sharpkestrel.demo.things;

/**
 * A vehicle.
 *
 * @param heading degrees clockwise from north
 * @param plan corners in turn, east and north
 * @param level of the top of its body, below a car's cabin, metres above the geoid
 * @param place what it stands on
 */
public record Vehicle(
    int id,
    Kind kind,
    double east,
    double north,
    double heading,
    double[] plan,
    double level,
    Place place) {

  /** Its class. */
  public enum Kind {
    CAR,
    VAN,
    LORRY,
    TRAILER
  }

  /** What it stands on. */
  public enum Place {
    FERRY,
    YARD,
    ROAD,
    STREET
  }
}
