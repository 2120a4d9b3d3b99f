package sharpkestrel.objects;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.LabelRaster;
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

  /** The objects of a cut with their areas. */
  public static ObjectSet of(Cut cut) {
    double[] area = new double[cut.objects()];
    for (int leaf = 0; leaf < cut.tree().leaves(); leaf++) {
      area[cut.objectOf()[leaf + 1]] += cut.tree().pixels(leaf);
    }
    for (int i = 0; i < area.length; i++) {
      area[i] *= cut.ground().area();
    }
    Table table = new Table(area.length, List.of(new Table.Column("area", "Area", "m²", area)));
    return new ObjectSet(cut.superpixels(), cut.objectOf(), cut.ids(), table, cut.ground());
  }

  public int count() {
    return ids.length;
  }

  public ObjectSet withTable(Table newTable) {
    return new ObjectSet(labels, rowOf, ids, newTable, ground);
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
