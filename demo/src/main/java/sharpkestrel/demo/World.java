package sharpkestrel.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/**
 * One Fenwrack Sound, made from a seed: an island coast with roads, crofts, trees and what confuses. Coordinates are
 * EPSG:32630, heights above the geoid, which lies {@value #UNDULATION} m above the ellipsoid here.
 */
public final class World {

  public static final double UNDULATION = 47;
  static final double PAN_GSD = 0.5;
  private static final double MARGIN = 160;
  static final double MARK_RADIUS = 1.5;

  private final long seed;
  private final int size;
  private final double east;
  private final double north;
  private final Terrain terrain;
  private final Camera camera;
  private final Settlement settlement;
  private final List<Tree> trees = new ArrayList<>();
  private final List<double[]> marks = new ArrayList<>();
  private final double half;
  private final CellIndex markIndex;
  private final CellIndex blockIndex;
  private final CellIndex treeIndex;

  final double sunElevation;
  final double sunAzimuth;
  final double offNadir;
  final double viewAzimuth;

  /**
   * @param size pixels of the panchromatic scene along one side
   */
  public World(long seed, int size) {
    if (size < 256 || size > 8192) {
      throw new IllegalArgumentException(
          "A world is 256 to 8192 panchromatic pixels wide, not " + size + ".");
    }
    this.seed = seed;
    this.size = size;
    Random random = new Random(Noise.mix(seed));
    sunElevation = 33 + 6 * random.nextDouble();
    sunAzimuth = 158 + 24 * random.nextDouble();
    offNadir = 16 + 6 * random.nextDouble();
    viewAzimuth = 80 + 40 * random.nextDouble();
    half = size * PAN_GSD / 2 * 1.2 + MARGIN;
    double[] middle = findCoast(random);
    east = middle[0];
    north = middle[1];
    terrain = new Terrain(this, east - half, north - half, east + half, north + half);
    camera = new Camera(
        east,
        north,
        terrain.height(east, north) + UNDULATION,
        offNadir,
        viewAzimuth,
        188 + 6 * random.nextDouble(),
        PAN_GSD,
        size,
        size);
    settlement = new Settlement(terrain, east, north, half);
    settle(random);
    markIndex = indexMarks();
    blockIndex = indexBlocks();
    treeIndex = indexTrees();
  }

  /** A place where about two thirds is land. */
  private double[] findCoast(Random random) {
    Noise land = new Noise(seed * 31 + 1);
    double[] best = {512_000, 6_702_000};
    double leastOff = Double.POSITIVE_INFINITY;
    for (int attempt = 0; attempt < 40; attempt++) {
      double e = 512_000 + 200 * random.nextInt(60) - 6000;
      double n = 6_702_000 + 200 * random.nextInt(60) - 6000;
      int dry = 0;
      for (int i = 0; i < 256; i++) {
        double x = e + ((i & 15) / 7.5 - 1) * half;
        double y = n + ((i >> 4) / 7.5 - 1) * half;
        dry += Terrain.shoreAt(land, x, y) > 0 ? 1 : 0;
      }
      double off = Math.abs(dry / 256.0 - 0.68);
      if (off < leastOff) {
        leastOff = off;
        best = new double[] {e, n};
      }
    }
    return best;
  }

  private void settle(Random random) {
    List<double[]> roads = new ArrayList<>();
    int wanted = Math.max(3, size / 400);
    for (int attempt = 0; attempt < 60 && roads.size() < wanted; attempt++) {
      double[] road = road(random);
      if (road.length >= 16) {
        roads.add(road);
        terrain.carve(road, 70);
      }
    }
    for (double[] road : roads) {
      settlement.along(road, random);
    }
    int farms = (int) (half * half / 2500);
    for (int i = 0; i < farms; i++) {
      settlement.croft(position(random), position(random), random.nextDouble() * 180, random);
    }
    plantTrees(random);
    placeMarks(random);
  }

  private double position(Random random) {
    return (2 * random.nextDouble() - 1) * (half - 30);
  }

  /** A line of points every 12 m that keeps to land and turns with the slope. */
  private double[] road(Random random) {
    double e = east + position(random) * 0.8;
    double n = north + position(random) * 0.8;
    double course = random.nextDouble() * 2 * Math.PI;
    List<Double> points = new ArrayList<>();
    for (int i = 0; i < 400; i++) {
      if (terrain.shore(e, n) < 0.012
          || Math.abs(e - east) > half - 5
          || Math.abs(n - north) > half - 5) {
        break;
      }
      points.add(e);
      points.add(n);
      double best = course;
      double least = Double.POSITIVE_INFINITY;
      double bend = (random.nextDouble() - 0.5) * 0.2;
      for (int k = -2; k <= 2; k++) {
        double c = course + bend + 0.11 * k;
        double climb = Math.abs(
            terrain.height(e + 25 * Math.cos(c), n + 25 * Math.sin(c)) - terrain.height(e, n));
        double wetness = terrain.shore(e + 60 * Math.cos(c), n + 60 * Math.sin(c)) < 0.02 ? 8 : 0;
        double cost = climb + wetness + 0.3 * Math.abs(k);
        if (cost < least) {
          least = cost;
          best = c;
        }
      }
      course = best;
      e += 12 * Math.cos(course);
      n += 12 * Math.sin(course);
    }
    return points.stream().mapToDouble(Double::doubleValue).toArray();
  }

  private void plantTrees(Random random) {
    int wanted = (int) (half * half / 260);
    Noise groves = new Noise(seed * 31 + 9);
    for (int i = 0; i < wanted; i++) {
      double e = east + position(random);
      double n = north + position(random);
      double grove = groves.octaves(e / 120, n / 120, 3);
      if (grove < 0.16 && random.nextDouble() > 0.05
          || terrain.shore(e, n) < 0.02
          || terrain.road(e, n) < 5) {
        continue;
      }
      double radius = 1.2 + 2.2 * random.nextDouble();
      boolean clear = true;
      for (Block block : settlement.blocks()) {
        clear &= !block.covers(e, n, radius + 1);
      }
      if (clear) {
        trees.add(new Tree(
            e, n, radius, terrain.height(e, n) + radius * (0.8 + 0.6 * random.nextDouble()), (float)
                (0.75 + 0.5 * random.nextDouble())));
      }
    }
  }

  /** White discs of 1.5 m radius on level ground, whose places are surveyed. */
  private void placeMarks(Random random) {
    double inner = size * PAN_GSD / 2 * 0.86;
    for (int attempt = 0; attempt < 4000 && marks.size() < 16; attempt++) {
      double e = east + (2 * random.nextDouble() - 1) * inner;
      double n = north + (2 * random.nextDouble() - 1) * inner;
      boolean good = terrain.shore(e, n) > 0.02 && terrain.road(e, n) > 7;
      for (Block block : settlement.blocks()) {
        good &= Math.hypot(block.east() - e, block.north() - n) > block.reach() + 16;
      }
      for (Tree tree : trees) {
        good &= Math.hypot(tree.east() - e, tree.north() - n) > 14;
      }
      for (double[] mark : marks) {
        good &= Math.hypot(mark[0] - e, mark[1] - n) > inner / 4;
      }
      if (good) {
        marks.add(new double[] {e, n, terrain.height(e, n)});
      }
    }
  }

  /** Whether a point lies on a mark; only cells that hold one are looked at closely. */
  boolean markAt(double e, double n) {
    int[] near = markIndex.at(e, n);
    if (near == null) {
      return false;
    }
    double dx = e - marks.get(near[0])[0];
    double dy = n - marks.get(near[0])[1];
    return dx * dx + dy * dy < MARK_RADIUS * MARK_RADIUS;
  }

  private CellIndex indexMarks() {
    CellIndex index = new CellIndex(east, north, half);
    for (int i = 0; i < marks.size(); i++) {
      double[] mark = marks.get(i);
      index.enter(
          i,
          mark[0] - MARK_RADIUS,
          mark[1] - MARK_RADIUS,
          mark[0] + MARK_RADIUS,
          mark[1] + MARK_RADIUS);
    }
    return index.closed();
  }

  private CellIndex indexBlocks() {
    CellIndex index = new CellIndex(east, north, half);
    for (int i = 0; i < settlement.blocks().size(); i++) {
      Block block = settlement.blocks().get(i);
      enter(index, i, block.east(), block.north(), block.reach(), block.eaves() + block.ridge());
    }
    return index.closed();
  }

  private CellIndex indexTrees() {
    CellIndex index = new CellIndex(east, north, half);
    for (int i = 0; i < trees.size(); i++) {
      Tree tree = trees.get(i);
      enter(index, i, tree.east(), tree.north(), tree.radius(), 2.5 * tree.radius());
    }
    return index.closed();
  }

  /** Enters a thing wherever it may be seen, or throw its shadow. */
  private void enter(CellIndex index, int thing, double e, double n, double reach, double tall) {
    double shadow = (tall + 3) / Math.tan(Math.toRadians(sunElevation));
    double lean = (tall + 3) * Math.tan(Math.toRadians(offNadir));
    double sx = -shadow * Math.sin(Math.toRadians(sunAzimuth));
    double sy = -shadow * Math.cos(Math.toRadians(sunAzimuth));
    double lx = -lean * Math.sin(Math.toRadians(viewAzimuth));
    double ly = -lean * Math.cos(Math.toRadians(viewAzimuth));
    index.enter(
        thing,
        e - reach + Math.min(0, Math.min(sx, lx)) - 1,
        n - reach + Math.min(0, Math.min(sy, ly)) - 1,
        e + reach + Math.max(0, Math.max(sx, lx)) + 1,
        n + reach + Math.max(0, Math.max(sy, ly)) + 1);
  }

  /** Things that may be met or may shade a point of the ground; null for none. */
  int[] blocksNear(double e, double n) {
    return blockIndex.at(e, n);
  }

  int[] treesNear(double e, double n) {
    return treeIndex.at(e, n);
  }

  long seed() {
    return seed;
  }

  public int size() {
    return size;
  }

  Terrain terrain() {
    return terrain;
  }

  Camera camera() {
    return camera;
  }

  List<Block> blocks() {
    return settlement.blocks();
  }

  List<Tree> trees() {
    return trees;
  }

  /** East, north and height above the geoid of the surveyed marks. */
  List<double[]> marks() {
    return marks;
  }

  int buildings() {
    return settlement.buildings();
  }

  double half() {
    return half;
  }

  double east() {
    return east;
  }

  double north() {
    return north;
  }
}
