package sharpkestrel.sharpen.texture;

/** Pairs of pixels of a tile at a displacement, by the row of the upper and the column of the left one. */
final class LevelPairs {

  private final LevelTile tile;
  private final int right;
  private final int below;
  private final boolean falling;

  LevelPairs(LevelTile tile, Displacement displacement) {
    this.tile = tile;
    right = Math.abs(displacement.right());
    below = Math.abs(displacement.down());
    falling = (displacement.right() >= 0) == (displacement.down() >= 0);
  }

  /** Columns of pairs in a window. */
  int across() {
    return 2 * tile.radius() + 1 - right;
  }

  /** Rows of pairs in a window. */
  int down() {
    return 2 * tile.radius() + 1 - below;
  }

  int columns() {
    return tile.rows()[0].length - right;
  }

  int rows() {
    return tile.rows().length - below;
  }

  /**
   * @param upper (output) levels of the upper pixels, one for each column
   * @param lower (output) those of the lower, or of the right ones where both lie in a row
   */
  void row(int row, int[] upper, int[] lower) {
    int columns = columns();
    System.arraycopy(tile.rows()[row], falling ? 0 : right, upper, 0, columns);
    System.arraycopy(tile.rows()[row + below], falling ? right : 0, lower, 0, columns);
  }
}
