package sharpkestrel.app.tools;

/** What works or paints only while its tool is in hand. */
public interface InHand {

  /** Begins, or stops: then nothing of it is worked out any more, and it paints nothing. */
  void setInHand(boolean now);
}
