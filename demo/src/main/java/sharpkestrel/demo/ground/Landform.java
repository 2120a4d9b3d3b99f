package sharpkestrel.demo.ground;

/** The form of one region's land: where its waters lie, how high it is, and where it is built. Asked from many threads. */
public interface Landform {

  /**
   * What changes so slowly that nodes a few metres apart will do; what the three mean is the landform's own affair.
   *
   * @param cliff in the isles noise of where there are cliffs, and {@code drop} of how high they are
   * @param ridge in the isles the sum of the ridges' octaves
   */
  record Broad(double cliff, double drop, double ridge) {}

  /** Metres to the shore of sea or river without its finest jags, above 0 on land. */
  double smooth(double e, double n);

  /**
   * Metres to the shore with them.
   *
   * @param smooth the smooth shore here
   */
  double jagged(double smooth, double e, double n);

  default double at(double e, double n) {
    return jagged(smooth(e, n), e, n);
  }

  Broad broad(double e, double n);

  /**
   * Height of the bare land above the geoid before waters, terraces and quarries are cut into it.
   *
   * @param shore metres to the shore at this place
   */
  double height(double shore, Broad broad, double e, double n);

  /** Whether its waters are the sea, with surf and tides, or a river. */
  default boolean isSea() {
    return true;
  }

  /** 1 along quays, falling to 0 away from them. */
  double front(double e, double n);

  /** 1 where the ground is formed for a town, falling to 0 outside. */
  double town(double e, double n);

  /** 1 where it is built, falling to 0 a little outside. */
  double built(double e, double n);

  /** How steep the land is, metres for a metre, over an arm each way. */
  default double slope(double e, double n, double arm) {
    return Math.hypot(bare(e + arm, n) - bare(e - arm, n), bare(e, n + arm) - bare(e, n - arm))
        / (2 * arm);
  }

  default double bare(double e, double n) {
    return height(at(e, n), broad(e, n), e, n);
  }

  /** 0 up to {@code low}, 1 from {@code high} on, smooth between. */
  static double step(double low, double high, double x) {
    double t = (x - low) / (high - low);
    if (t <= 0) {
      return 0;
    }
    return t >= 1 ? 1 : t * t * (3 - 2 * t);
  }
}
