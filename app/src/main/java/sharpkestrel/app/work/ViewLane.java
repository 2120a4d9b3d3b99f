package sharpkestrel.app.work;

import java.util.concurrent.Executor;
import java.util.concurrent.LinkedBlockingDeque;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.function.BooleanSupplier;

/**
 * Makes what is looked at. Tiles: those asked for last first; those that nobody looks at any more by the time they would be
 * made, not at all. Whole layers with their stretch, and what is under the mouse, have a thread of their own, and so have small
 * pictures, for which all of a raster may have to be worked out.
 */
public final class ViewLane {

  static final ViewLane SHARED = new ViewLane(Runtime.getRuntime().availableProcessors());

  /** A queue from which the newest is taken first. */
  private static final class NewestFirst extends LinkedBlockingDeque<Runnable> {
    private static final long serialVersionUID = 1;

    @Override
    public boolean offer(Runnable work) {
      return offerFirst(work);
    }
  }

  private final ThreadPoolExecutor tiles;
  private final Executor layers = Background.pool("kestrel-look", 1);
  private final Executor thumbnails = Background.pool("kestrel-thumbnail", 1);

  ViewLane(int count) {
    tiles = Background.pool(Background.threads("kestrel-tile"), count, new NewestFirst());
  }

  /**
   * Makes a tile.
   *
   * @param wanted asked before it is begun, on another thread
   * @param dropped told where it is not wanted any more
   */
  public void makeTile(BooleanSupplier wanted, Runnable work, Runnable dropped) {
    tiles.execute(() -> {
      if (wanted.getAsBoolean()) {
        work.run();
      } else {
        dropped.run();
      }
    });
  }

  /** How many tiles wait to be made. */
  public int waiting() {
    return tiles.getQueue().size();
  }

  /** Layers and read-outs. */
  public Executor layers() {
    return layers;
  }

  /** Small pictures of whole rasters. */
  public Executor thumbnails() {
    return thumbnails;
  }
}
