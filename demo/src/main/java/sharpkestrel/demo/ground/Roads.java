package sharpkestrel.demo.ground;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.raster.Extent;

/** All roads of a world, asked by place. */
public final class Roads {

  private static final double CELL = 32;
  /** Beyond this nothing is nearer to a road, as far as anybody asks. */
  public static final double FAR = 36;

  /** A straight piece; {@code start} is its distance along the road. */
  record Piece(Road road, double e0, double n0, double e1, double n1, double start) {

    /** Where along the piece the nearest point lies, 0 to 1. */
    double share(double e, double n) {
      double dx = e1 - e0;
      double dy = n1 - n0;
      double l2 = dx * dx + dy * dy;
      return l2 == 0 ? 0 : Math.max(0, Math.min(1, ((e - e0) * dx + (n - n0) * dy) / l2));
    }

    double distance(double e, double n) {
      double t = share(e, n);
      return Math.hypot(e - e0 - t * (e1 - e0), n - n0 - t * (n1 - n0));
    }
  }

  private final List<Road> roads = new ArrayList<>();
  private final Cells<Piece> pieces = new Cells<>(CELL);

  void add(Road road) {
    roads.add(road);
    double along = 0;
    for (int i = 0; i + 1 < road.points(); i++) {
      Piece piece = new Piece(road, road.e(i), road.n(i), road.e(i + 1), road.n(i + 1), along);
      along += Math.hypot(piece.e1 - piece.e0, piece.n1 - piece.n0);
      pieces.enter(
          piece,
          Math.min(piece.e0, piece.e1) - FAR,
          Math.min(piece.n0, piece.n1) - FAR,
          Math.max(piece.e0, piece.e1) + FAR,
          Math.max(piece.n0, piece.n1) + FAR);
    }
  }

  public List<Road> all() {
    return roads;
  }

  /** Metres to the edge of the nearest road, below 0 on it; at most {@link #FAR}. */
  public double beyondEdge(double e, double n) {
    double least = FAR;
    for (Piece piece : pieces.at(e, n)) {
      least = Math.min(least, piece.distance(e, n) - piece.road.kind().half);
    }
    return least;
  }

  /** The point of the nearest road, within {@link #FAR}. */
  double[] nearest(double e, double n) {
    double least = Double.POSITIVE_INFINITY;
    double[] found = {e, n};
    for (Piece piece : pieces.at(e, n)) {
      double t = piece.share(e, n);
      double pe = piece.e0 + t * (piece.e1 - piece.e0);
      double pn = piece.n0 + t * (piece.n1 - piece.n0);
      double d = Math.hypot(e - pe, n - pn);
      if (d < least) {
        least = d;
        found = new double[] {pe, pn};
      }
    }
    return found;
  }

  Iterable<Piece> within(Extent box) {
    return pieces.within(box.west(), box.south(), box.east(), box.north());
  }
}
