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
  private static final double CELL = 8;
  static final double MARK_RADIUS = 1.5;

  private final long seed;
  private final int size;
  private final double east;
  private final double north;
  private final Terrain terrain;
  private final Camera camera;
  private final List<Block> blocks = new ArrayList<>();
  private final List<Tree> trees = new ArrayList<>();
  private final List<double[]> marks = new ArrayList<>();
  private final double half;
  private int buildings;
  private int cellsAcross;
  private int[] markCells;
  private int[][] blockCells;
  private int[][] treeCells;

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
    settle(random);
    index();
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
      settleAlong(road, random);
    }
    int farms = (int) (half * half / 2500);
    for (int i = 0; i < farms; i++) {
      croft(position(random), position(random), random.nextDouble() * 180, random);
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

  private void settleAlong(double[] road, Random random) {
    boolean hamlet = random.nextDouble() < 0.7;
    for (int k = 0; k + 3 < road.length; k += 2) {
      if (random.nextDouble() < 0.04) {
        hamlet = !hamlet;
      }
      double along = Math.toDegrees(Math.atan2(road[k + 3] - road[k + 1], road[k + 2] - road[k]));
      double chance = hamlet ? 0.7 : 0.18;
      for (int side = -1; side <= 1; side += 2) {
        if (random.nextDouble() < chance) {
          double off = 11 + 22 * random.nextDouble();
          double a = Math.toRadians(along + 90 * side);
          croft(
              road[k] + off * Math.cos(a) - east,
              road[k + 1] + off * Math.sin(a) - north,
              along + 12 * random.nextGaussian() + (random.nextInt(3) == 0 ? 90 : 0),
              random);
        }
      }
    }
  }

  /** A building, sometimes with a wing, a yard or a polytunnel beside it. */
  private void croft(double x, double y, double angle, Random random) {
    double e = east + x;
    double n = north + y;
    double kind = random.nextDouble();
    Material roof =
        kind < 0.40 ? Material.METAL_ROOF : kind < 0.72 ? Material.SLATE_ROOF : Material.TURF_ROOF;
    boolean shed = random.nextDouble() < 0.3;
    double length = shed ? 5 + 5 * random.nextDouble() : 9 + 13 * random.nextDouble();
    double width = shed ? 4 + 2 * random.nextDouble() : 6 + 4.5 * random.nextDouble();
    double eaves = shed ? 2.2 + 0.8 * random.nextDouble() : 2.8 + 3.5 * random.nextDouble();
    boolean flat = random.nextDouble() < 0.22;
    double pitch = flat
        ? 0
        : roof == Material.METAL_ROOF
            ? 0.08 + 0.22 * random.nextDouble()
            : 0.4 + 0.4 * random.nextDouble();
    if (!free(e, n, Math.hypot(length, width) / 2 + 3)) {
      return;
    }
    float[] tone = tone(roof, random);
    int id = buildings++;
    addBlock(e, n, angle, length, width, eaves, pitch * width / 2, roof, tone, id);
    double radians = Math.toRadians(angle);
    if (!shed && random.nextDouble() < 0.25) {
      double wing = width * (0.55 + 0.3 * random.nextDouble());
      double deep = 3.5 + 4 * random.nextDouble();
      double shift = (random.nextDouble() - 0.5) * (length - wing);
      double u = shift;
      double v = width / 2 + deep / 2 - 0.6;
      addBlock(
          e + u * Math.cos(radians) - v * Math.sin(radians),
          n + u * Math.sin(radians) + v * Math.cos(radians),
          angle + 90,
          deep + 1.2,
          wing,
          eaves * 0.85,
          pitch * wing / 2 * 0.8,
          roof,
          tone,
          id);
    }
    double beside = random.nextDouble();
    if (beside < 0.38) {
      boolean film = beside < 0.09;
      double l = film ? 10 + 10 * random.nextDouble() : 6 + 12 * random.nextDouble();
      double w = film ? 5 + 2 * random.nextDouble() : 5 + 7 * random.nextDouble();
      double u = (random.nextDouble() - 0.5) * 8;
      double v = -(width / 2 + w / 2 + 0.8 + 2 * random.nextDouble());
      double be = e + u * Math.cos(radians) - v * Math.sin(radians);
      double bn = n + u * Math.sin(radians) + v * Math.cos(radians);
      if (terrain.shore(be, bn) > 0.008 && freeOf(be, bn, Math.hypot(l, w) / 2, id)) {
        Material cover = film ? Material.FILM : Material.CONCRETE;
        addBlock(
            be, bn, angle, l, w, film ? 1.4 : 0, film ? 1.3 : 0, cover, tone(cover, random), -1);
      }
    }
  }

  private void addBlock(
      double e,
      double n,
      double angle,
      double length,
      double width,
      double eaves,
      double ridge,
      Material roof,
      float[] tone,
      int id) {
    blocks.add(
        Block.of(e, n, angle, length, width, terrain.height(e, n), eaves, ridge, roof, tone, id));
  }

  private boolean free(double e, double n, double reach) {
    if (Math.abs(e - east) > half - 25
        || Math.abs(n - north) > half - 25
        || terrain.shore(e, n) < 0.012
        || terrain.road(e, n) < reach + 1) {
      return false;
    }
    double slope = Math.abs(terrain.height(e + 8, n) - terrain.height(e - 8, n))
        + Math.abs(terrain.height(e, n + 8) - terrain.height(e, n - 8));
    return slope < 5 && freeOf(e, n, reach, Integer.MIN_VALUE);
  }

  private boolean freeOf(double e, double n, double reach, int own) {
    for (Block block : blocks) {
      if (block.building() != own
          && Math.hypot(block.east() - e, block.north() - n) < block.reach() + reach) {
        return false;
      }
    }
    return terrain.road(e, n) > reach * 0.7;
  }

  /** Age, wetness and paint: an overall factor and a slope across the bands. */
  private static float[] tone(Material material, Random random) {
    double overall;
    double slope;
    switch (material) {
      case METAL_ROOF -> {
        // new sheets are bright, weathered zinc is grey; a few have a warm cast
        overall = random.nextDouble() < 0.35
            ? 0.52 + 0.2 * random.nextDouble()
            : 0.75 + 0.35 * random.nextDouble();
        slope = 0.018 * random.nextGaussian();
      }
      case SLATE_ROOF -> {
        overall = 0.75 + 0.5 * random.nextDouble();
        slope = 0.03 * random.nextGaussian();
      }
      case CONCRETE -> {
        overall = 0.6 + 0.55 * random.nextDouble();
        slope = 0.03 * random.nextGaussian();
      }
      default -> {
        overall = 0.8 + 0.4 * random.nextDouble();
        slope = 0.04 * random.nextGaussian();
      }
    }
    float[] tone = new float[Material.BANDS];
    for (int b = 0; b < tone.length; b++) {
      tone[b] = (float) (overall * (1 + slope * (b - 2.5)));
    }
    return tone;
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
      for (Block block : blocks) {
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
      for (Block block : blocks) {
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
    int at = markCells[cell(n - north) * cellsAcross + cell(e - east)];
    if (at < 0) {
      return false;
    }
    double dx = e - marks.get(at)[0];
    double dy = n - marks.get(at)[1];
    return dx * dx + dy * dy < MARK_RADIUS * MARK_RADIUS;
  }

  private void index() {
    cellsAcross = (int) Math.ceil(2 * half / CELL) + 1;
    markCells = new int[cellsAcross * cellsAcross];
    java.util.Arrays.fill(markCells, -1);
    for (int i = 0; i < marks.size(); i++) {
      for (int dy = -1; dy <= 1; dy++) {
        for (int dx = -1; dx <= 1; dx++) {
          int cx = cell(marks.get(i)[0] - east) + dx;
          int cy = cell(marks.get(i)[1] - north) + dy;
          markCells[cy * cellsAcross + cx] = i;
        }
      }
    }
    List<List<Integer>> forBlocks = emptyCells();
    List<List<Integer>> forTrees = emptyCells();
    for (int i = 0; i < blocks.size(); i++) {
      Block block = blocks.get(i);
      enter(
          forBlocks, i, block.east(), block.north(), block.reach(), block.eaves() + block.ridge());
    }
    for (int i = 0; i < trees.size(); i++) {
      Tree tree = trees.get(i);
      enter(forTrees, i, tree.east(), tree.north(), tree.radius(), 2.5 * tree.radius());
    }
    blockCells = flatten(forBlocks);
    treeCells = flatten(forTrees);
  }

  private List<List<Integer>> emptyCells() {
    List<List<Integer>> cells = new ArrayList<>();
    for (int i = 0; i < cellsAcross * cellsAcross; i++) {
      cells.add(null);
    }
    return cells;
  }

  /** Enters a thing in every cell where it may be seen, or throw its shadow. */
  private void enter(
      List<List<Integer>> cells, int thing, double e, double n, double reach, double tall) {
    double shadow = (tall + 3) / Math.tan(Math.toRadians(sunElevation));
    double lean = (tall + 3) * Math.tan(Math.toRadians(offNadir));
    double sx = -shadow * Math.sin(Math.toRadians(sunAzimuth));
    double sy = -shadow * Math.cos(Math.toRadians(sunAzimuth));
    double lx = -lean * Math.sin(Math.toRadians(viewAzimuth));
    double ly = -lean * Math.cos(Math.toRadians(viewAzimuth));
    double left = e - reach + Math.min(0, Math.min(sx, lx)) - 1;
    double right = e + reach + Math.max(0, Math.max(sx, lx)) + 1;
    double bottom = n - reach + Math.min(0, Math.min(sy, ly)) - 1;
    double top = n + reach + Math.max(0, Math.max(sy, ly)) + 1;
    for (int cy = cell(bottom - north); cy <= cell(top - north); cy++) {
      for (int cx = cell(left - east); cx <= cell(right - east); cx++) {
        int at = cy * cellsAcross + cx;
        if (cells.get(at) == null) {
          cells.set(at, new ArrayList<>());
        }
        cells.get(at).add(thing);
      }
    }
  }

  private int cell(double offset) {
    return (int) Math.max(0, Math.min(cellsAcross - 1.0, Math.floor((offset + half) / CELL)));
  }

  private static int[][] flatten(List<List<Integer>> cells) {
    int[][] flat = new int[cells.size()][];
    for (int i = 0; i < flat.length; i++) {
      flat[i] = cells.get(i) == null
          ? null
          : cells.get(i).stream().mapToInt(Integer::intValue).toArray();
    }
    return flat;
  }

  /** Things that may be met or may shade a point of the ground; null for none. */
  int[] blocksNear(double e, double n) {
    return blockCells[cell(n - north) * cellsAcross + cell(e - east)];
  }

  int[] treesNear(double e, double n) {
    return treeCells[cell(n - north) * cellsAcross + cell(e - east)];
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
    return blocks;
  }

  List<Tree> trees() {
    return trees;
  }

  /** East, north and height above the geoid of the surveyed marks. */
  List<double[]> marks() {
    return marks;
  }

  int buildings() {
    return buildings;
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
