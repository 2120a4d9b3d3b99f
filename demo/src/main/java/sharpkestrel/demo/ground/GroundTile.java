package sharpkestrel.demo.ground;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.demo.noise.SmoothTexture;
import sharpkestrel.raster.Extent;

/**
 * The ground of one square of {@value #SIDE} m at nodes 1 m apart, with an apron of {@value #APRON} m, interpolated
 * between nodes.
 */
public final class GroundTile {

  /** What is known at each node, interleaved so that a place is looked up in one go. */
  public enum Field {
    /** Metres to the shore, above 0 on land. */
    SHORE,
    /** Metres beyond the edge of the nearest road, below 0 on it; not told beyond {@value #ROADSIDE} m. */
    ROAD,
    /** Metres to the left of the middle of the nearest road. It has steps where another road becomes the nearest. */
    ACROSS,
    /** Share of the way from the middle of a lake to its shore. */
    LAKE,
    /** Metres beyond the edge of the nearest burn, below 0 in it; at most 8. */
    BURN,
    /** Share of the way from the middle of a quarry to its edge. */
    QUARRY,
    /** Patches of stone, -1 to 1. */
    ROCKY,
    /** How wet the ground is, -1 to 1. */
    DAMP,
    /** Patches of some metres to a few tens, -1 to 1. */
    BROAD,
    /** Where grass is bleached, -1 to 1. */
    BLEACHED,
    /** Where heather grows, -1 to 1. */
    HEATHER;

    static final int COUNT = values().length;

    /** Its value among those {@link GroundTile#sample} fills. */
    public float of(float[] sample) {
      return sample[ordinal()];
    }
  }

  public static final int SIDE = 128;
  static final int APRON = 4;
  private static final double ROADSIDE = 6;
  private static final int NODES = SIDE + 1 + 2 * APRON;
  private static final int PARCEL_STEP = 2;
  private static final int PARCEL_NODES = (NODES - 1) / PARCEL_STEP + 1;

  public final double west;
  public final double south;
  private final float[] height = new float[NODES * NODES];
  private final float[] fields = new float[NODES * NODES * Field.COUNT];
  private final float[] along = new float[NODES * NODES];
  private final float[] wood = new float[NODES * NODES];
  private final byte[] kind = new byte[NODES * NODES];
  private final short[] parcelAt = new short[PARCEL_NODES * PARCEL_NODES];
  private final List<Parcel> parcels = new ArrayList<>();
  private final Parcels all;
  private final List<double[]> peat = new ArrayList<>();
  private final boolean town;

  GroundTile(Ground ground, long i, long j, Textures textures) {
    west = (double) i * SIDE;
    south = (double) j * SIDE;
    Coarse coarse = new Coarse(ground, west - APRON, south - APRON);
    double[] weights = new double[4];
    double[] cut = new double[3];
    Ground.Cuts cuts = ground.cuts(new Extent(west, south, west + SIDE, south + SIDE).grown(APRON));
    for (int y = 0; y < NODES; y++) {
      for (int x = 0; x < NODES; x++) {
        double e = west + x - APRON;
        double n = south + y - APRON;
        int at = y * NODES + x;
        coarse.at(x, y, weights);
        double toShore = ground.landform().jagged(weights[0], e, n);
        set(at, Field.SHORE, (float) toShore);
        height[at] = (float) ground.height(
            toShore, new Landform.Broad(weights[1], weights[2], weights[3]), cuts, e, n, cut);
        set(at, Field.LAKE, (float) cut[0]);
        set(at, Field.BURN, (float) cut[1]);
        set(at, Field.QUARRY, (float) cut[2]);
        set(at, Field.ROCKY, (float) textures.stone.octaves(e / 62, n / 62, 5));
        set(at, Field.DAMP, (float) textures.wet.octaves(e / 140, n / 140, 4));
        wood[at] = (float) textures.groves.octaves(e / 260, n / 260, 4);
        set(at, Field.BROAD, (float) textures.wet.octaves(e / 24 + 7, n / 24, 3));
        set(at, Field.BLEACHED, (float) textures.stone.octaves(e / 75 + 9, n / 75, 4));
        set(at, Field.HEATHER, (float) textures.groves.octaves(e / 48, n / 48 + 21, 4));
      }
    }
    Map<Parcel, Short> numbers = new IdentityHashMap<>();
    for (int y = 0; y < PARCEL_NODES; y++) {
      for (int x = 0; x < PARCEL_NODES; x++) {
        Parcel parcel =
            ground.parcels().at(west + x * PARCEL_STEP - APRON, south + y * PARCEL_STEP - APRON);
        Short number = numbers.get(parcel);
        if (number == null) {
          number = (short) parcels.size();
          numbers.put(parcel, number);
          parcels.add(parcel);
        }
        parcelAt[y * PARCEL_NODES + x] = number;
      }
    }
    for (int at = 0; at < NODES * NODES; at++) {
      set(at, Field.ROAD, (float) Roads.FAR);
    }
    Arrays.fill(kind, (byte) -1);
    Extent box = new Extent(west, south, west + SIDE, south + SIDE).grown(APRON + ROADSIDE);
    for (Roads.Piece piece : ground.roads().within(box)) {
      lay(piece);
    }
    all = ground.parcels();
    Extent own = new Extent(west, south, west + SIDE, south + SIDE);
    ground.peatWithin(own).forEach(peat::add);
    boolean inTown = false;
    for (double n = south; n <= south + SIDE; n += SIDE / 8.0) {
      for (double e = west; e <= west + SIDE; e += SIDE / 8.0) {
        inTown |= ground.landform().built(e, n) > 0;
      }
    }
    town = inTown;
  }

  /** The textures that tell how stony, wet and overgrown the land is. */
  record Textures(SmoothTexture stone, SmoothTexture wet, SmoothTexture groves) {}

  /** Lowers the distance to the nearest road at the nodes beside a piece of one. */
  private void lay(Roads.Piece piece) {
    double half = piece.road().kind().half;
    double reach = half + ROADSIDE;
    double dx = piece.e1() - piece.e0();
    double dy = piece.n1() - piece.n0();
    double length = Math.max(Math.hypot(dx, dy), 1e-9);
    int left = node(Math.min(piece.e0(), piece.e1()) - reach - west);
    int right = node(Math.max(piece.e0(), piece.e1()) + reach - west);
    int low = node(Math.min(piece.n0(), piece.n1()) - reach - south);
    int high = node(Math.max(piece.n0(), piece.n1()) + reach - south);
    for (int y = low; y <= high; y++) {
      for (int x = left; x <= right; x++) {
        double e = west + x - APRON;
        double n = south + y - APRON;
        double d = piece.distance(e, n) - half;
        int at = y * NODES + x;
        if (d < fields[at * Field.COUNT + Field.ROAD.ordinal()]) {
          set(at, Field.ROAD, (float) d);
          double side = dx * (n - piece.n0()) - dy * (e - piece.e0());
          set(at, Field.ACROSS, (float) Math.copySign(d + half, side));
          kind[at] = (byte) piece.road().kind().ordinal();
          along[at] =
              (float) (piece.start() + ((e - piece.e0()) * dx + (n - piece.n0()) * dy) / length);
        }
      }
    }
  }

  private static int node(double offset) {
    return (int) Math.max(0, Math.min(NODES - 1.0, Math.rint(offset + APRON)));
  }

  private void set(int at, Field field, float value) {
    fields[at * Field.COUNT + field.ordinal()] = value;
  }

  /**
   * All fields at a place.
   *
   * @param sample (output) of {@link Field#COUNT} values, in the order of the fields
   */
  public void sample(double e, double n, float[] sample) {
    double px = e - west + APRON;
    double py = n - south + APRON;
    int x = Math.max(0, Math.min(NODES - 2, (int) px));
    int y = Math.max(0, Math.min(NODES - 2, (int) py));
    float fx = (float) (px - x);
    float fy = (float) (py - y);
    int low = (y * NODES + x) * Field.COUNT;
    int high = low + NODES * Field.COUNT;
    for (int f = 0; f < Field.COUNT; f++) {
      float bottom = fields[low + f] + (fields[low + Field.COUNT + f] - fields[low + f]) * fx;
      float top = fields[high + f] + (fields[high + Field.COUNT + f] - fields[high + f]) * fx;
      sample[f] = bottom + (top - bottom) * fy;
    }
  }

  /** Space for a sample. */
  public static float[] newSample() {
    return new float[Field.COUNT];
  }

  /** Whether lookups at a point and a few metres about it are answered by this tile. */
  public boolean holds(double e, double n) {
    return e >= west && n >= south && e < west + SIDE && n < south + SIDE;
  }

  private float lookup(float[] field, double e, double n) {
    double px = e - west + APRON;
    double py = n - south + APRON;
    int x = Math.max(0, Math.min(NODES - 2, (int) px));
    int y = Math.max(0, Math.min(NODES - 2, (int) py));
    float fx = (float) (px - x);
    float fy = (float) (py - y);
    int i = y * NODES + x;
    float bottom = field[i] + (field[i + 1] - field[i]) * fx;
    float top = field[i + NODES] + (field[i + NODES + 1] - field[i + NODES]) * fx;
    return bottom + (top - bottom) * fy;
  }

  /** Metres above the geoid. */
  public float height(double e, double n) {
    return lookup(height, e, n);
  }

  /** Metres along the nearest road at the nearest node. */
  public float alongRoad(double e, double n) {
    return lookup(along, e, n);
  }

  /** What the nearest road is; null where none is near. */
  public Road.Kind roadKind(double e, double n) {
    int x = Math.max(0, Math.min(NODES - 1, (int) (e - west + APRON + 0.5)));
    int y = Math.max(0, Math.min(NODES - 1, (int) (n - south + APRON + 0.5)));
    byte ordinal = kind[y * NODES + x];
    return ordinal < 0 ? null : Road.Kind.values()[ordinal];
  }

  /** Whether any of it is built up. */
  public boolean inTown() {
    return town;
  }

  /** Peat works on it: east, north, direction, length, width. */
  public List<double[]> peat() {
    return peat;
  }

  /** Where trees like to grow, -1 to 1. */
  public float wood(double e, double n) {
    return lookup(wood, e, n);
  }

  /** The parcel at a place: that of the nodes about it where they agree. */
  public Parcel parcel(double e, double n) {
    int x = Math.max(0, Math.min(PARCEL_NODES - 2, (int) ((e - west + APRON) / PARCEL_STEP)));
    int y = Math.max(0, Math.min(PARCEL_NODES - 2, (int) ((n - south + APRON) / PARCEL_STEP)));
    int i = y * PARCEL_NODES + x;
    short number = parcelAt[i];
    return number == parcelAt[i + 1]
            && number == parcelAt[i + PARCEL_NODES]
            && number == parcelAt[i + PARCEL_NODES + 1]
        ? parcels.get(number)
        : all.at(e, n);
  }

  /** Unit normal of the ground, over 2 m each way, into {@code normal[0..2]}. */
  public void normal(double e, double n, double[] normal) {
    double gx = (height(e + 1.5, n) - height(e - 1.5, n)) / 3;
    double gy = (height(e, n + 1.5) - height(e, n - 1.5)) / 3;
    double scale = 1 / Math.sqrt(1 + gx * gx + gy * gy);
    normal[0] = -gx * scale;
    normal[1] = -gy * scale;
    normal[2] = scale;
  }
}
