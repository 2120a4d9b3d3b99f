package sharpkestrel.app.tools;

import java.util.Optional;
import sharpkestrel.app.model.ObjectChoice;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.ClassFill;
import sharpkestrel.app.viewer.ObjectPaint;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.app.viewer.Ramp;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.objects.ObjectSet;

/**
 * Draws pane A's objects by what is chosen of them: borders of the chosen ones, filled by a feature, or by the selections
 * that are compared. Where all are chosen, those filled by a feature have no borders.
 */
public final class ChoicePainter {

  /** Share of values at either end of a ramp that have its end's colour. */
  public static final double TAIL = 0.02;

  private static final int BY_RAMP = 0xd0;
  private static final int BY_CLASS = 0xa8;

  private final Workspace workspace;
  private final ObjectChoice choice;
  private final PictureView picture;
  private ObjectSet painted;

  ChoicePainter(Workspace workspace, ObjectChoice choice, PictureView picture) {
    this.workspace = workspace;
    this.choice = choice;
    this.picture = picture;
    choice.onChange(this::paint);
    workspace.display().featureShownProperty().addListener((p, before, now) -> paint());
    workspace.display().hiddenClassesProperty().addListener((p, before, now) -> paint());
  }

  /** Draws them, whoever has drawn them meanwhile. */
  void paintAnew() {
    painted = choice.objects().orElse(null);
    paint();
  }

  private void paint() {
    ObjectSet set = choice.objects().orElse(null);
    if (set == null) {
      return;
    }
    Optional<Table.Column> feature = workspace.display().featureOf(set.table());
    boolean byClass = feature.isPresent() && isClass(set, feature.get());
    boolean plain = choice.isAll()
        && (feature.isEmpty() || byClass)
        && choice.kept(0).isEmpty()
        && choice.kept(1).isEmpty();
    if (!plain) {
      picture.paint(of(set, feature));
      painted = set;
    } else if (painted == set) {
      picture.paintAsFirst();
      painted = null;
    }
  }

  private ObjectPaint of(ObjectSet set, Optional<Table.Column> feature) {
    boolean[] chosen = choice.chosen();
    int[] fill = new int[set.count()];
    if (feature.isPresent()) {
      byFeature(fill, chosen, set, feature.get());
    } else {
      for (int i = 0; i < fill.length; i++) {
        fill[i] = chosen[i] && !choice.isAll() ? ObjectPaint.PASSING : 0;
      }
      // the first over the second, where an object is in both
      for (int k = 1; k >= 0; k--) {
        Optional<boolean[]> selection = choice.kept(k);
        for (int i = 0; i < fill.length; i++) {
          if (selection.isPresent() && selection.get()[i]) {
            fill[i] = Palette.argb(BY_CLASS, Palette.of(k));
          }
        }
      }
    }
    // borders of all would hide the colours of small objects
    boolean bare = feature.isPresent() && choice.isAll();
    return ObjectPaint.of(set).coloured(fill, bare ? new boolean[set.count()] : chosen);
  }

  /** Whether a column is of classes that have colours of their own. */
  private static boolean isClass(ObjectSet set, Table.Column column) {
    return column.name().equals(ClassMap.CLASS) && ClassFill.has(set);
  }

  private void byFeature(int[] fill, boolean[] chosen, ObjectSet set, Table.Column column) {
    if (isClass(set, column)) {
      int[] classes =
          ClassFill.of(set, workspace.display().hiddenClassesProperty().get());
      for (int i = 0; i < fill.length; i++) {
        fill[i] = chosen[i] ? classes[i] : 0;
      }
      return;
    }
    Table table = set.table();
    double low = column.isText() ? 0 : table.quantile(column.name(), TAIL);
    double high = column.isText() ? 0 : table.quantile(column.name(), 1 - TAIL);
    for (int i = 0; i < fill.length; i++) {
      double v = column.values()[i];
      if (!chosen[i] || Double.isNaN(v)) {
        continue;
      }
      if (column.isText()) {
        fill[i] = Palette.argb(BY_CLASS, Palette.of((int) v));
      } else {
        int colour = Ramp.colour((v - low) / Math.max(1e-12, high - low));
        fill[i] = colour & 0x00ffffff | BY_RAMP << 24;
      }
    }
  }
}
