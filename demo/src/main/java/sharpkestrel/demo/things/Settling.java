package sharpkestrel.demo.things;

/** Fills a world: with what lasts, and with what is there on a day. */
public interface Settling {

  /** What lasts: no vessel, no vehicle. */
  Things lasting();

  /** What is there on a day. */
  default Things day(long day) {
    return day(lasting(), day);
  }

  /**
   * What is there on a day beside what lasts then.
   *
   * @param lasting of this, or of a later year
   */
  Things day(Things lasting, long day);

  /** What lasts some years later. */
  Changed after(int years);
}
