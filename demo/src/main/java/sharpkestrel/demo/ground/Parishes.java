package sharpkestrel.demo.ground;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Parishes: the land nearest to each of a loose lattice of kirks, cut at the bounds of the survey. */
public final class Parishes {

  private static final double SQUARE = 620;
  private static final GeometryFactory GEOMETRY = new GeometryFactory();
  private static final String[] FIRST = {
    "Thrain", "Skellaw", "Wrackan", "Gannis", "Ordra", "Pellow", "Marrow", "Quern", "Ulgar",
        "Drusk",
    "Heskin", "Dunnar", "Velk", "Grould", "Kelpin", "Lummar", "Rimmet", "Stourk", "Tavran", "Vordal"
  };
  private static final String[] BEFORE = {
    "", "Upper ", "Nether ", "Easter ", "Wester ", "Over ", "Mid ", "Far ", "Little "
  };
  private static final String[] LAST = {
    "hope", "moor", "ness", "ay", "holm", "wick", "garth", "fell", "sund", "stow"
  };

  /** A parish. */
  public record Parish(String name, Geometry area) {}

  private final List<Parish> parishes = new ArrayList<>();
  private final List<double[]> kirks = new ArrayList<>();

  public Parishes(Ground ground, Extent extent) {
    long west = (long) Math.floor(extent.west() / SQUARE) - 2;
    long south = (long) Math.floor(extent.south() / SQUARE) - 2;
    long east = (long) Math.floor(extent.east() / SQUARE) + 2;
    long north = (long) Math.floor(extent.north() / SQUARE) + 2;
    for (long j = south; j <= north; j++) {
      for (long i = west; i <= east; i++) {
        double[] ring = cell(ground.seed(), i, j);
        ring = Polygons.clip(ring, 1, 0, extent.east());
        ring = ring.length == 0 ? ring : Polygons.clip(ring, -1, 0, -extent.west());
        ring = ring.length == 0 ? ring : Polygons.clip(ring, 0, 1, extent.north());
        ring = ring.length == 0 ? ring : Polygons.clip(ring, 0, -1, -extent.south());
        if (ring.length > 0 && Polygons.area(ring) > 400) {
          parishes.add(new Parish(name(ground.seed(), i, j), polygon(ring)));
          kirks.add(kirk(ground.seed(), i, j));
        }
      }
    }
  }

  private static double[] kirk(long seed, long i, long j) {
    Chance chance = Chance.of(seed, 91, i, j);
    return new double[] {
      (i + chance.between(0.15, 0.85)) * SQUARE, (j + chance.between(0.15, 0.85)) * SQUARE
    };
  }

  private static double[] cell(long seed, long i, long j) {
    double[] own = kirk(seed, i, j);
    double[] ring = Polygons.oblong(own[0], own[1], 0, 6 * SQUARE, 6 * SQUARE);
    for (int dj = -2; dj <= 2; dj++) {
      for (int di = -2; di <= 2; di++) {
        if (di != 0 || dj != 0) {
          double[] other = kirk(seed, i + di, j + dj);
          double squares =
              (other[0] * other[0] + other[1] * other[1] - own[0] * own[0] - own[1] * own[1]) / 2;
          ring = Polygons.clip(ring, other[0] - own[0], other[1] - own[1], squares);
        }
      }
    }
    return ring;
  }

  /** Within 60 columns and 30 rows, 37 km by 18 km, no name is given twice. */
  private static String name(long seed, long i, long j) {
    Chance chance = Chance.of(seed, 92);
    long column = i + chance.whole(0, 99);
    long row = j + chance.whole(0, 99);
    int first = Math.floorMod(column + 7 * row, FIRST.length);
    int last = Math.floorMod(row, LAST.length);
    long block = Math.floorDiv(column, (long) FIRST.length)
        + 3 * Math.floorMod(Math.floorDiv(row, (long) LAST.length), 3L);
    return BEFORE[Math.floorMod(block, BEFORE.length)] + FIRST[first] + LAST[last];
  }

  static Geometry polygon(double[] ring) {
    Coordinate[] corners = new Coordinate[ring.length / 2 + 1];
    for (int k = 0; k < corners.length - 1; k++) {
      corners[k] = new Coordinate(ring[2 * k], ring[2 * k + 1]);
    }
    corners[corners.length - 1] = corners[0].copy();
    return GEOMETRY.createPolygon(corners);
  }

  public List<Parish> all() {
    return parishes;
  }

  /** The parish of a place. */
  public String at(double e, double n) {
    int nearest = 0;
    double least = Double.POSITIVE_INFINITY;
    for (int k = 0; k < kirks.size(); k++) {
      double d = Math.hypot(kirks.get(k)[0] - e, kirks.get(k)[1] - n);
      if (d < least) {
        least = d;
        nearest = k;
      }
    }
    return parishes.get(nearest).name();
  }
}
