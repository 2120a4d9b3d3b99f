package sharpkestrel.demo.scene;

import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.LoadingCache;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.noise.SmoothTexture;
import sharpkestrel.demo.sensor.Sensor;
import sharpkestrel.demo.things.Things;

/** What rays of one scene may meet, tile by tile, made when first met. */
final class SceneTiles {

  private static final int KEPT = 400;

  private record Place(long i, long j) {}

  private final Ground ground;
  private final SmoothTexture smooth;
  private final Grain grain;
  private final LoadingCache<Place, SceneTile> cache;

  SceneTiles(Ground ground, Things things, Scene scene, double undulation) {
    this.ground = ground;
    smooth = new SmoothTexture(ground.seed() * 31 + 8);
    grain = new Grain(ground.seed() * 31 + 7);
    Trees trees = new Trees(ground, things);
    double[] sun = scene.conditions().sun().direction();
    double[] sunRay = {sun[0] / sun[2], sun[1] / sun[2]};
    cache = Caffeine.newBuilder().maximumSize(KEPT).executor(Runnable::run).build(place -> {
      double e = (place.i + 0.5) * GroundTile.SIDE;
      double n = (place.j + 0.5) * GroundTile.SIDE;
      GroundTile tile = ground.tiles().at(e, n);
      double[][] leans = leans(scene.sensor(), tile, undulation);
      return new SceneTile(tile, ground, things, trees, sunRay, leans);
    });
  }

  /** How far rays go east and north for a metre of height, at the corners of a tile. */
  private static double[][] leans(Sensor sensor, GroundTile tile, double undulation) {
    double[][] leans = new double[4][2];
    double[] image = new double[2];
    double[] ray = new double[4];
    for (int k = 0; k < 4; k++) {
      double e = tile.west + (k % 2) * GroundTile.SIDE;
      double n = tile.south + (k / 2) * GroundTile.SIDE;
      sensor.toImage(e, n, tile.height(e, n) + undulation, image);
      sensor.ray(image[0], image[1], ray);
      leans[k][0] = ray[2];
      leans[k][1] = ray[3];
    }
    return leans;
  }

  SceneTile at(double e, double n) {
    return cache.get(
        new Place((long) Math.floor(e / GroundTile.SIDE), (long) Math.floor(n / GroundTile.SIDE)));
  }

  Ground ground() {
    return ground;
  }

  SmoothTexture smooth() {
    return smooth;
  }

  Grain grain() {
    return grain;
  }
}
