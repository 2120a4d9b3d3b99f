package sharpkestrel.demo;

import java.nio.file.Path;
import java.util.List;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.survey.ThreeScales;
import sharpkestrel.demo.truth.RoofsByOneNumber;
import sharpkestrel.demo.truth.Separability;
import sharpkestrel.raster.Job;

/** Figures about a world itself, and its picture. */
public final class WorldReport {

  private WorldReport() {}

  /** The first scene at three scales side by side, as a PNG. */
  public static void picture(Survey.Order order, Path path, Job job) {
    World world = new World(order.seed(), order.size(), order.scenario(), order.scheme());
    new ThreeScales(new Exposure(world.one(), world.ground(), world.things(), world.undulation()))
        .write(path, job);
  }

  /** How well one threshold on one number tells pixels of roofs from all others in the first scene. */
  public static RoofsByOneNumber.Best roofsByOneNumber(long seed, int size, Scheme scheme) {
    World world = new World(seed, size, Scenario.WHOLE, scheme);
    return new RoofsByOneNumber(world.one(), world.ground(), world.things(), world.undulation())
        .best();
  }

  /** How well one number tells roofs from what is taken for them in the first scene. */
  public static List<Separability.Result> separability(long seed, int size, Scheme scheme) {
    World world = new World(seed, size, Scenario.WHOLE, scheme);
    return new Separability(
            world.one(), world.ground(), world.things(), world.extent(), world.undulation())
        .results();
  }
}
