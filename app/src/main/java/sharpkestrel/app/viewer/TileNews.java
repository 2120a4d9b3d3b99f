package sharpkestrel.app.viewer;

/** Who is told of tiles; on the thread that made them. */
interface TileNews {

  /** A tile has come, or will not. */
  void arrived();

  /** The first of a layer that could not be made, and why. */
  default void failed(Tiles<?> layer, String why) {}
}
