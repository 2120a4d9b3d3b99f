package sharpkestrel.demo.ground;

import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.LoadingCache;
import sharpkestrel.demo.noise.SmoothTexture;

/** Tiles of ground, made when they are first looked at; a few hundred are kept. */
public final class GroundTiles {

  /** Two rows of tiles under a scene of 40,000 pixels read in three columns, and some. */
  private static final int KEPT = 400;

  private record Place(long i, long j) {}

  private final LoadingCache<Place, GroundTile> cache;

  GroundTiles(Ground ground) {
    GroundTile.Textures textures = new GroundTile.Textures(
        new SmoothTexture(ground.seed() * 31 + 3),
        new SmoothTexture(ground.seed() * 31 + 4),
        new SmoothTexture(ground.seed() * 31 + 9));
    cache = Caffeine.newBuilder()
        .maximumSize(KEPT)
        .executor(Runnable::run) // its upkeep is too small to hand to another thread
        .build(place -> new GroundTile(ground, place.i, place.j, textures));
  }

  /** Height of the ground, from the nodes of its tile. */
  public double height(double e, double n) {
    return at(e, n).height(e, n);
  }

  /** Looks at places that follow each other without asking for their tile each time; for one thread. */
  public final class Lookup {
    private GroundTile tile;

    public double height(double e, double n) {
      if (tile == null || !tile.holds(e, n)) {
        tile = at(e, n);
      }
      return tile.height(e, n);
    }
  }

  public Lookup lookup() {
    return new Lookup();
  }

  /**
   * Height at which a ray meets the ground. Ground slopes less than a ray is steep, so each step comes nearer.
   *
   * @param ray east and north at height 0 above the geoid, and their change for a metre
   */
  public double meet(double[] ray, double guess) {
    double h = guess;
    for (int i = 0; i < 40; i++) {
      double found = height(ray[0] + h * ray[2], ray[1] + h * ray[3]);
      double change = found - h;
      h = found;
      if (Math.abs(change) < 0.002) {
        break;
      }
    }
    return h;
  }

  public GroundTile at(double e, double n) {
    return cache.get(
        new Place((long) Math.floor(e / GroundTile.SIDE), (long) Math.floor(n / GroundTile.SIDE)));
  }
}
