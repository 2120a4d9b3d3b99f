package sharpkestrel.objects;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.LocalArea;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.Cut;

/**
 * Objects: pixels with a table. The pixels are labels; {@code rowOf} gives the table's row of each label, so that
 * leaving objects out, or colouring them, never touches a pixel.
 *
 * @param labels 0 to n
 * @param rowOf for each label its row, -1 for none
 * @param ids for each row the object's lasting number
 */
public record ObjectSet(
    LabelRaster labels, int[] rowOf, int[] ids, Table table, GroundSize ground) {

  private static final int STRIP = 64;

  /** The objects of a cut with their areas. */
  public static ObjectSet of(Cut cut) {
    LocalArea local = LocalArea.of(cut.superpixels().grid());
    double[] area = local.isEven() ? pixels(cut) : pixels(cut, local);
    for (int i = 0; i < area.length; i++) {
      area[i] *= cut.ground().area();
    }
    Table table = new Table(
        area.length, List.of(new Table.Column("area", "Area", cut.ground().areaUnit(), area)));
    return new ObjectSet(cut.superpixels(), cut.objectOf(), cut.ids(), table, cut.ground());
  }

  private static double[] pixels(Cut cut) {
    double[] pixels = new double[cut.objects()];
    for (int leaf = 0; leaf < cut.tree().leaves(); leaf++) {
      pixels[cut.objectOf()[leaf + 1]] += cut.tree().pixels(leaf);
    }
    return pixels;
  }

  /** Pixels counted by what they are on the ground against the middle one. */
  private static double[] pixels(Cut cut, LocalArea local) {
    double[] pixels = new double[cut.objects()];
    int width = cut.superpixels().grid().width();
    int height = cut.superpixels().grid().height();
    int[] strip = new int[width * STRIP];
    for (int top = 0; top < height; top += STRIP) {
      int rows = Math.min(STRIP, height - top);
      cut.superpixels().read(new Window(0, top, width, rows), strip);
      for (int i = 0; i < width * rows; i++) {
        int object = cut.objectOf()[strip[i]];
        if (object >= 0) {
          pixels[object] += local.at(i % width + 0.5, top + 0.5 + Math.floorDiv(i, width));
        }
      }
    }
    return pixels;
  }

  public int count() {
    return ids.length;
  }

  /** The row of the object at a pixel; -1 where there is none. */
  public int rowAt(int col, int row) {
    int[] label = new int[1];
    // beyond the grid labels are 0
    labels.read(new Window(col, row, 1, 1), label);
    return rowOf[label[0]];
  }

  /** The same objects with other numbers; where nothing is known of the ground, lengths and areas among them are in pixels. */
  public ObjectSet withTable(Table newTable) {
    return new ObjectSet(
        labels, rowOf, ids, ground.inMetres() ? newTable : inPixels(newTable), ground);
  }

  private static Table inPixels(Table table) {
    return new Table(
        table.rows(),
        table.columns().stream()
            .map(c -> c.unit().equals("m²") || c.unit().equals("m")
                ? new Table.Column(c.name(), c.title(), "px", c.values(), c.categories())
                : c)
            .toList());
  }

  /** The objects that reach into a window of the labels' grid, on its pixels alone. */
  public ObjectSet within(Window window) {
    ScratchLabels there = new ScratchLabels(labels.grid().part(window));
    boolean[] reaches = new boolean[count()];
    int[] strip = new int[window.width() * STRIP];
    for (int top = 0; top < window.height(); top += STRIP) {
      int height = Math.min(STRIP, window.height() - top);
      labels.read(new Window(window.x(), window.y() + top, window.width(), height), strip);
      for (int i = 0; i < window.width() * height; i++) {
        if (rowOf[strip[i]] >= 0) {
          reaches[rowOf[strip[i]]] = true;
        }
      }
      there.write(new Window(0, top, window.width(), height), strip);
    }
    there.setMaxLabel(labels.maxLabel());
    int[] rows = IntStream.range(0, count()).filter(row -> reaches[row]).toArray();
    ObjectSet some = select(rows);
    return new ObjectSet(there, some.rowOf, some.ids, some.table, ground);
  }

  /** The objects at the given rows, in that order. */
  public ObjectSet select(int[] rows) {
    int[] place = new int[count()];
    Arrays.fill(place, -1);
    int[] newIds = new int[rows.length];
    for (int i = 0; i < rows.length; i++) {
      place[rows[i]] = i;
      newIds[i] = ids[rows[i]];
    }
    int[] newRowOf = new int[rowOf.length];
    for (int label = 0; label < rowOf.length; label++) {
      newRowOf[label] = rowOf[label] < 0 ? -1 : place[rowOf[label]];
    }
    return new ObjectSet(labels, newRowOf, newIds, table.select(rows), ground);
  }
}
