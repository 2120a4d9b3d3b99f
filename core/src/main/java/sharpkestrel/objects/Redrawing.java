package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/** Objects whose pixels are being divided anew: numbers from 1, those of the objects first, then of parts split off. */
final class Redrawing {

  private final ObjectSet set;
  private final ScratchLabels labels;
  private int[] owners;
  private int count;

  Redrawing(ObjectSet set, Job job) {
    this.set = set;
    labels = new ScratchLabels(set.labels().grid());
    count = set.count();
    owners = new int[count];
    Arrays.setAll(owners, i -> i);
    int width = labels.grid().width();
    int[] row = new int[width];
    for (int y = 0; y < labels.grid().height(); y++) {
      job.cancellation().check();
      Window line = new Window(0, y, width, 1);
      set.labels().read(line, row);
      for (int x = 0; x < width; x++) {
        row[x] = set.rowOf()[row[x]] + 1;
      }
      labels.write(line, row);
    }
  }

  /** Number of each pixel's object, to be changed. */
  ScratchLabels labels() {
    return labels;
  }

  /** A number for a part of an object, which has that object's texts. */
  int add(int owner) {
    owners = count == owners.length ? Arrays.copyOf(owners, 2 * count + 16) : owners;
    owners[count] = owner;
    return ++count;
  }

  /** The objects as they are drawn now, with their areas and texts; what else they measure is to be measured again. */
  ObjectSet result(Job job) {
    labels.setMaxLabel(count);
    double[] areas = new double[count];
    int[] row = new int[labels.grid().width()];
    for (int y = 0; y < labels.grid().height(); y++) {
      job.cancellation().check();
      labels.read(new Window(0, y, row.length, 1), row);
      for (int label : row) {
        if (label > 0) {
          areas[label - 1] += set.ground().area();
        }
      }
    }
    int[] rowOf = new int[count + 1];
    Arrays.setAll(rowOf, i -> i - 1);
    int[] ids = Arrays.copyOf(set.ids(), count);
    int free = Arrays.stream(set.ids()).max().orElse(0);
    for (int i = set.count(); i < count; i++) {
      ids[i] = ++free;
    }
    List<Table.Column> columns = new ArrayList<>();
    columns.add(FeatureCatalogue.column("area", areas));
    columns.addAll(texts(set.table(), Arrays.copyOf(owners, count)));
    return new ObjectSet(labels, rowOf, ids, new Table(count, columns), set.ground());
  }

  /** Columns of texts, taken from the rows given. */
  static List<Table.Column> texts(Table table, int[] rows) {
    return table.columns().stream()
        .filter(Table.Column::isText)
        .map(column -> column.select(rows))
        .toList();
  }
}
