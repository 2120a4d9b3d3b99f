package sharpkestrel.sharpen.texture;

/**
 * Grey levels of a tile and what surrounds it, each row an array of its own.
 *
 * @param rows levels; {@link Levels#NONE} where there is no data or no scene
 * @param radius rows and columns on each side that belong to windows only
 * @param holes whether any level is missing
 */
record LevelTile(int[][] rows, int radius, boolean holes) {

  static LevelTile of(float[] values, int width, int radius, Levels levels) {
    int height = values.length / width;
    int[] all = new int[values.length];
    levels.of(values, all);
    int[][] rows = new int[height][width];
    for (int y = 0; y < height; y++) {
      System.arraycopy(all, y * width, rows[y], 0, width);
    }
    int any = 0;
    for (int level : all) {
      any |= level;
    }
    return new LevelTile(rows, radius, any < 0);
  }

  int width() {
    return rows[0].length - 2 * radius;
  }

  int height() {
    return rows.length - 2 * radius;
  }
}
