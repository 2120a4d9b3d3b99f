package sharpkestrel.demo;

import java.util.List;
import sharpkestrel.demo.truth.Separability;

/** Figures about a world itself. */
public final class WorldReport {

  private WorldReport() {}

  /** How well one number tells roofs from what is taken for them in the first scene. */
  public static List<Separability.Result> separability(long seed, int size) {
    World world = new World(seed, size);
    return new Separability(
            world.one(), world.ground(), world.things(), world.extent(), World.UNDULATION)
        .results();
  }
}
