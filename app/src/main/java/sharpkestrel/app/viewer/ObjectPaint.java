package sharpkestrel.app.viewer;

import java.util.Arrays;
import javafx.scene.paint.Color;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.segment.Cut;

/**
 * How an object set is drawn: for each label its row; for each row a fill (0 for none), whether its border shows, and
 * the side of a square of its size in pixels, by which borders of tiny objects fade. Recolouring replaces these small
 * arrays only.
 *
 * @param ids for each row the number by which its object is known, the same when the grain changes
 * @param cameFrom for each row the object that it was before, {@link RedrawnObjects#SEVERAL} for none; empty where nothing was
 *     drawn anew
 */
public record ObjectPaint(
    int[] rowOf,
    int[] ids,
    int[] fill,
    boolean[] bordered,
    float[] sides,
    int selected,
    int[] cameFrom) {

  /** The fill of objects that pass tests. */
  public static final int PASSING = 0x66e07b45;

  private static final int RANDOM_ALPHA = 0x96;
  private static final int[] RANDOM = colours();

  /** Borders of all objects of a cut, no fill. */
  public static ObjectPaint of(Cut cut) {
    float[] sides = new float[cut.objects()];
    for (int leaf = 0; leaf < cut.tree().leaves(); leaf++) {
      sides[cut.objectOf()[leaf + 1]] += cut.tree().pixels(leaf);
    }
    return outlines(cut.objectOf(), cut.ids(), sides);
  }

  /** Borders of all objects of a set, no fill. */
  public static ObjectPaint of(ObjectSet set) {
    float[] sides = new float[set.count()];
    double[] areas = set.table().values("area");
    for (int i = 0; i < sides.length; i++) {
      sides[i] = (float) (areas[i] / set.ground().area());
    }
    return outlines(set.rowOf(), set.ids(), sides);
  }

  /** Borders of all objects, and cuts between those that were one. */
  static ObjectPaint of(RedrawnObjects redrawn) {
    ObjectPaint all = of(redrawn.objects());
    return new ObjectPaint(
        all.rowOf, all.ids, all.fill, all.bordered, all.sides, -1, redrawn.cameFrom());
  }

  /** Whether what lies between two objects is a cut: they were one before. */
  boolean isCut(int a, int b) {
    return cameFrom.length > 0
        && a != b
        && a >= 0
        && b >= 0
        && cameFrom[a] >= 0
        && cameFrom[a] == cameFrom[b];
  }

  private static ObjectPaint outlines(int[] rowOf, int[] ids, float[] pixels) {
    for (int i = 0; i < pixels.length; i++) {
      pixels[i] = (float) Math.sqrt(pixels[i]);
    }
    boolean[] all = new boolean[pixels.length];
    Arrays.fill(all, true);
    return new ObjectPaint(rowOf, ids, new int[pixels.length], all, pixels, -1, new int[0]);
  }

  /** The same objects filled so that they stand out from those left out, also where they are tiny. */
  public ObjectPaint standingOut() {
    int[] filled = new int[fill.length];
    Arrays.fill(filled, PASSING);
    return coloured(filled, bordered);
  }

  /** The same objects with other fills and borders. */
  public ObjectPaint coloured(int[] newFill, boolean[] newBordered) {
    return new ObjectPaint(rowOf, ids, newFill, newBordered, sides, selected, cameFrom);
  }

  /** A colour that an object keeps for as long as it is the same. */
  int random(int row) {
    int hash = ids[row] * 0x9e3779b9;
    hash ^= hash >>> 15;
    hash *= 0x85ebca6b;
    hash ^= hash >>> 13;
    return RANDOM[hash & RANDOM.length - 1];
  }

  private static int[] colours() {
    int[] colours = new int[64];
    for (int k = 0; k < colours.length; k++) {
      // around the circle, in four strengths of light, so that neighbours hardly ever look alike
      Color colour = Color.hsb(k * 137.508 % 360, 0.55, 0.55 + 0.14 * (k % 4));
      colours[k] = Palette.argb(RANDOM_ALPHA, colour);
    }
    return colours;
  }

  public ObjectPaint withSelected(int row) {
    return new ObjectPaint(rowOf, ids, fill, bordered, sides, row, cameFrom);
  }
}
