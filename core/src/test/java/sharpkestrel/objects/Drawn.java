package sharpkestrel.objects;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.ScratchLabels;

/** Object sets drawn as letters, row by row, pixels of 1 m; a dot is no object, letters count from a. */
final class Drawn {

  private Drawn() {}

  static ObjectSet of(String... rows) {
    int width = rows[0].length();
    int[] labels = new int[width * rows.length];
    int most = 0;
    for (int i = 0; i < labels.length; i++) {
      char letter = rows[i / width].charAt(i % width);
      labels[i] = letter == '.' ? 0 : letter - 'a' + 1;
      most = Math.max(most, labels[i]);
    }
    Grid grid =
        new Grid(width, rows.length, Affine.northUp(512_000, 6_702_000, 1), CrsName.epsg(32630));
    ScratchLabels drawn = new ScratchLabels(grid);
    drawn.write(grid.window(), labels);
    drawn.setMaxLabel(most);
    double[] areas = new double[most];
    for (int label : labels) {
      if (label > 0) {
        areas[label - 1]++;
      }
    }
    int[] rowOf = new int[most + 1];
    int[] ids = new int[most];
    Arrays.setAll(rowOf, l -> l - 1);
    Arrays.setAll(ids, i -> 100 + i);
    Table table = new Table(most, List.of(FeatureCatalogue.column("area", areas)));
    return new ObjectSet(drawn, rowOf, ids, table, new GroundSize(1, 1));
  }

  /** An object set as letters in order of its rows. */
  static String[] letters(ObjectSet set) {
    Grid grid = set.labels().grid();
    int[] labels = new int[grid.window().area()];
    set.labels().read(grid.window(), labels);
    String[] rows = new String[grid.height()];
    for (int y = 0; y < rows.length; y++) {
      StringBuilder row = new StringBuilder();
      for (int x = 0; x < grid.width(); x++) {
        int object = set.rowOf()[labels[y * grid.width() + x]];
        row.append(object < 0 ? '.' : (char) ('a' + object));
      }
      rows[y] = row.toString();
    }
    return rows;
  }
}
