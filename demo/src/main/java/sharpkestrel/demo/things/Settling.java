package sharpkestrel.demo.things;

/** Fills a world: with what lasts, and with what is there on a day. */
public interface Settling {

  /** What lasts: no vessel, no vehicle. */
  Things lasting();

  /** What is there on a day. */
  Things day(long day);
}
