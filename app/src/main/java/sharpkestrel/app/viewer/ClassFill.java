package sharpkestrel.app.viewer;

import java.util.Set;
import javafx.scene.paint.Color;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.objects.ObjectSet;

/** Fills of objects in the colours of their classes. */
public final class ClassFill {

  /** The picture is to be seen under it. */
  private static final int ALPHA = 0xa0;

  private ClassFill() {}

  /** Whether objects have classes with colours. */
  public static boolean has(ObjectSet set) {
    Table table = set.table();
    return table.has(ClassMap.CLASS)
        && table.column(ClassMap.CLASS).isText()
        && table.has(ClassMap.COLOUR)
        && table.column(ClassMap.COLOUR).isText();
  }

  /** For each object its fill; none for those without a class or of one that is hidden. */
  public static int[] of(ObjectSet set, Set<String> hidden) {
    Table.Column classes = set.table().column(ClassMap.CLASS);
    Table.Column colours = set.table().column(ClassMap.COLOUR);
    int[] ofColour = colours.categories().stream().mapToInt(ClassFill::argb).toArray();
    boolean[] seen = new boolean[classes.categories().size()];
    for (int k = 0; k < seen.length; k++) {
      seen[k] = !hidden.contains(classes.categories().get(k));
    }
    int[] fill = new int[set.count()];
    for (int row = 0; row < fill.length; row++) {
      double place = colours.values()[row];
      double ofClass = classes.values()[row];
      boolean filled = !Double.isNaN(place) && !Double.isNaN(ofClass) && seen[(int) ofClass];
      fill[row] = filled ? ofColour[(int) place] : 0;
    }
    return fill;
  }

  private static int argb(String colour) {
    // what was read from a file may hold anything
    return colour.matches("#[0-9A-Fa-f]{6}") ? Palette.argb(ALPHA, Color.web(colour)) : 0;
  }
}
