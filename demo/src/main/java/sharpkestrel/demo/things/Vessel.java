package sharpkestrel.demo.things;

/**
 * A vessel afloat or on a slip.
 *
 * @param heading degrees clockwise from north
 * @param deck corners of its plan in turn, east and north
 * @param level of its rail, metres above the geoid
 * @param place the harbour or water it lies in
 * @param abreast how many lie side by side in its raft; 1 where it lies alone
 */
public record Vessel(
    int id,
    Kind kind,
    double east,
    double north,
    double heading,
    double length,
    double beam,
    double[] deck,
    double level,
    String place,
    State state,
    int abreast) {

  /** Its class. */
  public enum Kind {
    WORKBOAT,
    BARGE,
    DINGHY
  }

  /** What it is doing. */
  public enum State {
    MOORED,
    BERTHED,
    RAFTED,
    ASHORE,
    UNDER_WAY
  }
}
