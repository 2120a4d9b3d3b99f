package sharpkestrel.demo.scene;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.ground.GroundTiles;
import sharpkestrel.demo.things.Crown;
import sharpkestrel.demo.things.Patch;
import sharpkestrel.demo.things.Pen;
import sharpkestrel.demo.things.Solid;
import sharpkestrel.demo.things.Things;
import sharpkestrel.demo.things.Wake;
import sharpkestrel.raster.Extent;

/**
 * What rays of one scene may meet over one tile of ground: for every cell of {@value #CELL} m the things that may be
 * seen there along the view and those whose shadow may fall there, and how high the hills' shadow stands above it.
 */
final class SceneTile {

  private static final int CELL = 8;
  private static final int CELLS = GroundTile.SIDE / CELL;
  private static final int LIGHT_STEP = 4;
  private static final int LIGHTS = GroundTile.SIDE / LIGHT_STEP + 1;
  private static final double REACH = 96;
  private static final Solid[] NO_SOLIDS = {};
  private static final Crown[] NO_CROWNS = {};
  private static final Patch[] NO_PATCHES = {};

  final GroundTile ground;
  final List<Wake> wakes = new ArrayList<>();
  final List<Pen> pens = new ArrayList<>();
  private final Solid[][] seen;
  private final Solid[][] shading;
  private final Crown[][] seenCrowns;
  private final Crown[][] shadingCrowns;
  private final Patch[][] patches;
  private final float[] hillShadow = new float[LIGHTS * LIGHTS];
  private final boolean hills;

  SceneTile(
      GroundTile tile, Ground land, Things things, Trees trees, double[] sunRay, double[][] leans) {
    ground = tile;
    Extent box = new Extent(
        tile.west, tile.south, tile.west + GroundTile.SIDE, tile.south + GroundTile.SIDE);
    Extent about = box.grown(REACH);
    List<Crown> crowns = new ArrayList<>();
    trees.within(box.grown(26), crowns);
    things.crowns(about).forEach(crowns::add);
    Lists<Solid> view = new Lists<>();
    Lists<Solid> shade = new Lists<>();
    for (Solid solid : things.solids(about)) {
      double tall = solid.top - solid.base + 3;
      view.enter(solid, solid.east, solid.north, solid.reach + 0.3, tall, leans);
      shade.enter(solid, solid.east, solid.north, solid.reach + 0.3, tall, sunRay);
    }
    Lists<Crown> viewCrowns = new Lists<>();
    Lists<Crown> shadeCrowns = new Lists<>();
    for (Crown crown : crowns) {
      double tall = 2.3 * crown.tall() + 1;
      viewCrowns.enter(crown, crown.east(), crown.north(), crown.radius() + 0.3, tall, leans);
      shadeCrowns.enter(crown, crown.east(), crown.north(), crown.radius() + 0.3, tall, sunRay);
    }
    Lists<Patch> flat = new Lists<>();
    for (Patch patch : things.patches(about)) {
      flat.enter(patch, patch.east, patch.north, patch.reach, 0, leans);
    }
    seen = view.arrays(new Solid[CELLS * CELLS][], NO_SOLIDS);
    shading = shade.arrays(new Solid[CELLS * CELLS][], NO_SOLIDS);
    seenCrowns = viewCrowns.arrays(new Crown[CELLS * CELLS][], NO_CROWNS);
    shadingCrowns = shadeCrowns.arrays(new Crown[CELLS * CELLS][], NO_CROWNS);
    patches = flat.arrays(new Patch[CELLS * CELLS][], NO_PATCHES);
    things.wakes(box).forEach(wakes::add);
    things.pens(box).forEach(pens::add);
    hills = shadeHills(land.tiles(), sunRay);
  }

  /** Lists of things by cell of this tile. */
  private final class Lists<T> {
    private final List<List<T>> lists = new ArrayList<>();

    Lists() {
      for (int i = 0; i < CELLS * CELLS; i++) {
        lists.add(null);
      }
    }

    /** Enters a thing wherever it, or what it hides or shades {@code tall} below its top, may lie. */
    void enter(T thing, double e, double n, double reach, double tall, double[]... slants) {
      double west = 0;
      double east = 0;
      double south = 0;
      double north = 0;
      for (double[] slant : slants) {
        west = Math.min(west, -tall * slant[0]);
        east = Math.max(east, -tall * slant[0]);
        south = Math.min(south, -tall * slant[1]);
        north = Math.max(north, -tall * slant[1]);
      }
      int left = cell(e - reach + west - ground.west);
      int right = cell(e + reach + east - ground.west);
      int low = cell(n - reach + south - ground.south);
      int high = cell(n + reach + north - ground.south);
      for (int y = Math.max(0, low); y <= Math.min(CELLS - 1, high); y++) {
        for (int x = Math.max(0, left); x <= Math.min(CELLS - 1, right); x++) {
          int at = y * CELLS + x;
          if (lists.get(at) == null) {
            lists.set(at, new ArrayList<>());
          }
          lists.get(at).add(thing);
        }
      }
    }

    private int cell(double offset) {
      return (int) Math.floor(offset / CELL);
    }

    T[][] arrays(T[][] arrays, T[] none) {
      for (int i = 0; i < arrays.length; i++) {
        arrays[i] = lists.get(i) == null ? none : lists.get(i).toArray(none);
      }
      return arrays;
    }
  }

  /** Marches from each node towards the sun, in steps that grow; says whether any hill throws a shadow here. */
  private boolean shadeHills(GroundTiles tiles, double[] sunRay) {
    boolean any = false;
    double across = Math.hypot(sunRay[0], sunRay[1]);
    GroundTile at = ground;
    for (int y = 0; y < LIGHTS; y++) {
      for (int x = 0; x < LIGHTS; x++) {
        double e = ground.west + x * LIGHT_STEP;
        double n = ground.south + y * LIGHT_STEP;
        double own = ground.height(e, n);
        double highest = Double.NEGATIVE_INFINITY;
        for (double d = 4; d < 560; d *= 1.15) {
          double rise = d / across;
          double pe = e + rise * sunRay[0];
          double pn = n + rise * sunRay[1];
          if (!at.holds(pe, pn)) {
            at = tiles.at(pe, pn);
          }
          highest = Math.max(highest, at.height(pe, pn) - rise);
        }
        hillShadow[y * LIGHTS + x] = (float) (highest - own);
        any |= highest > own - 1;
      }
    }
    return any;
  }

  private int cell(double e, double n) {
    int x = (int) ((e - ground.west) / CELL);
    int y = (int) ((n - ground.south) / CELL);
    return Math.max(0, Math.min(CELLS - 1, y)) * CELLS + Math.max(0, Math.min(CELLS - 1, x));
  }

  Solid[] seen(double e, double n) {
    return seen[cell(e, n)];
  }

  Solid[] shading(double e, double n) {
    return shading[cell(e, n)];
  }

  Crown[] seenCrowns(double e, double n) {
    return seenCrowns[cell(e, n)];
  }

  Crown[] shadingCrowns(double e, double n) {
    return shadingCrowns[cell(e, n)];
  }

  Patch[] patches(double e, double n) {
    return patches[cell(e, n)];
  }

  /** Share of the sun that passes above the hills, at a height over the ground of a place. */
  double pastHills(double e, double n, double above) {
    if (!hills) {
      return 1;
    }
    double px = Math.max(0, Math.min(LIGHTS - 1.001, (e - ground.west) / LIGHT_STEP));
    double py = Math.max(0, Math.min(LIGHTS - 1.001, (n - ground.south) / LIGHT_STEP));
    int x = (int) px;
    int y = (int) py;
    int i = y * LIGHTS + x;
    double fx = px - x;
    double fy = py - y;
    double bottom = hillShadow[i] + (hillShadow[i + 1] - hillShadow[i]) * fx;
    double top =
        hillShadow[i + LIGHTS] + (hillShadow[i + LIGHTS + 1] - hillShadow[i + LIGHTS]) * fx;
    double over = bottom + (top - bottom) * fy - above;
    return over < -0.2 ? 1 : over > 0.4 ? 0 : (0.4 - over) / 0.6;
  }
}
