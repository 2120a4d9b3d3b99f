package sharpkestrel.place.fit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.index.strtree.STRtree;
import org.locationtech.jts.triangulate.DelaunayTriangulationBuilder;

/**
 * One affine map for each triangle of Delaunay's triangulation of the points. Beyond their hull it eases into the
 * affine map that fits all points best: that map gives the places of eight points far outside.
 */
final class PiecewiseMap implements PlaneMap {

  /** How far out the points stand that hold the edge, in half-widths of the points' box. */
  private static final double FAR = 4;

  private record Triangle(double[] from, double[][] affine) {}

  private final Scaling scaling;
  private final STRtree triangles;
  private final PlaneMap beyond;

  private PiecewiseMap(Scaling scaling, STRtree triangles, PlaneMap beyond) {
    this.scaling = scaling;
    this.triangles = triangles;
    this.beyond = beyond;
  }

  static PiecewiseMap fit(double[][] from, double[][] to) {
    PlaneMap affine = PolynomialMap.fit(1, from, to);
    Scaling scaling = Scaling.of(from);
    Map<Coordinate, double[]> places = new HashMap<>();
    List<Coordinate> sites = new ArrayList<>();
    for (int i = 0; i < from.length; i++) {
      Coordinate site = new Coordinate(scaling.u(from[i][0]), scaling.v(from[i][1]));
      if (places.put(site, to[i]) != null) {
        throw new LeastSquares.Undetermined(
            "Two points fall together, so no triangle lies between them. Switch one of them off.");
      }
      sites.add(site);
    }
    for (int k = 0; k < 9; k++) {
      if (k != 4) {
        double u = FAR * (k % 3 - 1);
        double v = FAR * (k / 3 - 1);
        double[] xy = new double[2];
        affine.apply(
            scaling.middleU() + u * scaling.size(), scaling.middleV() + v * scaling.size(), xy);
        places.put(new Coordinate(u, v), xy);
        sites.add(new Coordinate(u, v));
      }
    }
    DelaunayTriangulationBuilder builder = new DelaunayTriangulationBuilder();
    builder.setSites(sites);
    Geometry parts = builder.getTriangles(new GeometryFactory());
    STRtree tree = new STRtree();
    for (int k = 0; k < parts.getNumGeometries(); k++) {
      Coordinate[] corners = parts.getGeometryN(k).getCoordinates();
      tree.insert(parts.getGeometryN(k).getEnvelopeInternal(), triangle(corners, places));
    }
    tree.build();
    return new PiecewiseMap(scaling, tree, affine);
  }

  private static Triangle triangle(Coordinate[] corners, Map<Coordinate, double[]> places) {
    double[] from = new double[6];
    double[][] to = new double[3][];
    for (int k = 0; k < 3; k++) {
      from[2 * k] = corners[k].x;
      from[2 * k + 1] = corners[k].y;
      to[k] = places.get(corners[k]);
    }
    return new Triangle(from, to);
  }

  @Override
  public boolean isSmooth() {
    return false;
  }

  @Override
  public void apply(double u, double v, double[] xy) {
    double a = scaling.u(u);
    double b = scaling.v(v);
    for (Object found : triangles.query(new Envelope(a, a, b, b))) {
      Triangle t = (Triangle) found;
      double[] f = t.from;
      double det = (f[3] - f[5]) * (f[0] - f[4]) + (f[4] - f[2]) * (f[1] - f[5]);
      double p = ((f[3] - f[5]) * (a - f[4]) + (f[4] - f[2]) * (b - f[5])) / det;
      double q = ((f[5] - f[1]) * (a - f[4]) + (f[0] - f[4]) * (b - f[5])) / det;
      double r = 1 - p - q;
      if (p >= -1e-9 && q >= -1e-9 && r >= -1e-9) {
        double[][] to = t.affine;
        xy[0] = p * to[0][0] + q * to[1][0] + r * to[2][0];
        xy[1] = p * to[0][1] + q * to[1][1] + r * to[2][1];
        return;
      }
    }
    beyond.apply(u, v, xy);
  }
}
