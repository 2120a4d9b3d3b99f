package sharpkestrel.app.viewer;

import java.util.Arrays;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.segment.Cut;

/**
 * How an object set is drawn: for each label its row; for each row a fill (0 for none), whether its border shows, and
 * the side of a square of its size in pixels, by which borders of tiny objects fade. Recolouring replaces these small
 * arrays only.
 */
public record ObjectPaint(
    int[] rowOf, int[] fill, boolean[] bordered, float[] sides, int selected) {

  /** The fill of objects that pass tests. */
  public static final int PASSING = 0x66e07b45;

  /** Borders of all objects of a cut, no fill. */
  public static ObjectPaint of(Cut cut) {
    float[] sides = new float[cut.objects()];
    for (int leaf = 0; leaf < cut.tree().leaves(); leaf++) {
      sides[cut.objectOf()[leaf + 1]] += cut.tree().pixels(leaf);
    }
    return outlines(cut.objectOf(), sides);
  }

  /** Borders of all objects of a set, no fill. */
  public static ObjectPaint of(ObjectSet set) {
    float[] sides = new float[set.count()];
    double[] areas = set.table().values("area");
    for (int i = 0; i < sides.length; i++) {
      sides[i] = (float) (areas[i] / set.ground().area());
    }
    return outlines(set.rowOf(), sides);
  }

  private static ObjectPaint outlines(int[] rowOf, float[] pixels) {
    for (int i = 0; i < pixels.length; i++) {
      pixels[i] = (float) Math.sqrt(pixels[i]);
    }
    boolean[] all = new boolean[pixels.length];
    Arrays.fill(all, true);
    return new ObjectPaint(rowOf, new int[pixels.length], all, pixels, -1);
  }

  /** The same objects filled so that they stand out from those left out, also where they are tiny. */
  public ObjectPaint standingOut() {
    int[] filled = new int[fill.length];
    Arrays.fill(filled, PASSING);
    return coloured(filled, bordered);
  }

  /** The same objects with other fills and borders. */
  public ObjectPaint coloured(int[] newFill, boolean[] newBordered) {
    return new ObjectPaint(rowOf, newFill, newBordered, sides, selected);
  }

  public ObjectPaint withSelected(int row) {
    return new ObjectPaint(rowOf, fill, bordered, sides, row);
  }
}
