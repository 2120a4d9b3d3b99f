package sharpkestrel.demo.things;

/** A side of a ring: where it begins, its direction, its length; the ring lies to its left. */
record Side(Frame frame, double length) {

  /** Metres by which what is built along a side keeps inside of it, so that rounding does not put it outside. */
  static final double WITHIN = 0.05;

  static Side of(double[] ring, int corner) {
    int next = (corner + 2) % ring.length;
    double de = ring[next] - ring[corner];
    double dn = ring[next + 1] - ring[corner + 1];
    return new Side(
        Frame.at(ring[corner], ring[corner + 1], Math.atan2(dn, de)), Math.hypot(de, dn));
  }

  static Side longest(double[] ring) {
    Side most = of(ring, 0);
    for (int k = 2; k < ring.length; k += 2) {
      Side side = of(ring, k);
      most = side.length > most.length ? side : most;
    }
    return most;
  }
}
