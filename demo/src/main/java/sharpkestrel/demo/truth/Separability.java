package sharpkestrel.demo.truth;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Location;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.things.Building;
import sharpkestrel.demo.things.Patch;
import sharpkestrel.demo.things.Things;
import sharpkestrel.raster.Extent;

/**
 * How well one number tells roofs from what is taken for them: over the mean of each object in the scene without blur and
 * noise, the best threshold on any band or any ratio of two, by the mean of the two classes' shares that fall on
 * their side.
 */
public final class Separability {

  /** Objects smaller than this tell nothing. */
  private static final double LEAST_AREA = 20;

  private static final List<String> BANDS =
      List.of("pan", "violet", "blue", "green", "red", "red edge", "near infrared");

  /** Roofs and what they are compared with. */
  public enum Pair {
    TURF_AND_DRY_GRASS(Material.TURF_ROOF, Material.DRY_GRASS),
    SLATE_AND_WET_ASPHALT(Material.SLATE_ROOF, Material.WET_ASPHALT),
    METAL_AND_BARE_ROCK(Material.METAL_ROOF, Material.PALE_ROCK);

    public final Material roof;
    public final Material other;

    Pair(Material roof, Material other) {
      this.roof = roof;
      this.other = other;
    }
  }

  /**
   * What came out for a pair.
   *
   * @param feature the best band or ratio
   * @param accuracy share on the right side of the best threshold, each class counting the same
   */
  public record Result(Pair pair, int roofs, int others, String feature, double accuracy) {}

  private final Exposure exposure;
  private final Scene scene;
  private final Outlines.Product raw;
  private final Things things;
  private final Extent extent;
  private final Ground heights;

  /**
   * @param undulation metres from the ellipsoid up to the geoid
   */
  public Separability(Scene scene, Ground ground, Things things, Extent extent, double undulation) {
    this.scene = scene;
    this.things = things;
    this.extent = extent;
    exposure = new Exposure(scene, ground, things, undulation);
    raw = Outlines.raw(scene.sensor(), undulation);
    heights = ground;
  }

  /** Results for each pair, as far as there are ten of each. */
  public List<Result> results() {
    Map<Material, List<double[]>> means = new EnumMap<>(Material.class);
    for (Building building : things.buildings()) {
      add(means, building.roof(), Outlines.roof(building, raw));
    }
    for (Patch patch : things.patches(extent)) {
      add(means, patch.surface.material(), seen(patch));
    }
    List<Result> results = new ArrayList<>();
    for (Pair pair : Pair.values()) {
      List<double[]> roofs = means.getOrDefault(pair.roof, List.of());
      List<double[]> others = means.getOrDefault(pair.other, List.of());
      if (roofs.size() >= 10 && others.size() >= 10) {
        results.add(best(pair, roofs, others));
      }
    }
    return results;
  }

  private Geometry seen(Patch patch) {
    double[] ring = patch.ring();
    Coordinate[] corners = new Coordinate[ring.length / 2 + 1];
    for (int k = 0; k < corners.length; k++) {
      int i = 2 * k % ring.length;
      corners[k] = raw.of(ring[i], ring[i + 1], heights.height(ring[i], ring[i + 1]));
    }
    // what frays at the edge is left out
    return new GeometryFactory().createPolygon(corners).buffer(-2 * patch.ragged);
  }

  private void add(Map<Material, List<double[]>> means, Material material, Geometry outline) {
    Envelope box = outline.getEnvelopeInternal();
    boolean whole = box.getMinX() > 0
        && box.getMinY() > 0
        && box.getMaxX() < scene.sensor().width()
        && box.getMaxY() < scene.sensor().height();
    if (!whole || outline.getArea() < 4 * LEAST_AREA) {
      return;
    }
    IndexedPointInAreaLocator inside = new IndexedPointInAreaLocator(outline);
    List<Double> points = new ArrayList<>();
    for (double y = Math.floor(box.getMinY()) + 0.5; y < box.getMaxY(); y++) {
      for (double x = Math.floor(box.getMinX()) + 0.5; x < box.getMaxX(); x++) {
        if (inside.locate(new Coordinate(x, y)) == Location.INTERIOR) {
          points.add(x);
          points.add(y);
        }
      }
    }
    means
        .computeIfAbsent(material, any -> new ArrayList<>())
        .add(exposure.mean(points.stream().mapToDouble(p -> p).toArray()));
  }

  private static Result best(Pair pair, List<double[]> roofs, List<double[]> others) {
    String feature = "";
    double accuracy = 0;
    int bands = BANDS.size();
    for (int i = 0; i < bands; i++) {
      for (int j = i; j < bands; j++) {
        int over = i;
        int under = j == i ? -1 : j;
        double[] a = values(roofs, over, under);
        double[] b = values(others, over, under);
        double found = bestThreshold(a, b);
        if (found > accuracy) {
          accuracy = found;
          feature = under < 0 ? BANDS.get(over) : BANDS.get(over) + " / " + BANDS.get(under);
        }
      }
    }
    return new Result(pair, roofs.size(), others.size(), feature, accuracy);
  }

  private static double[] values(List<double[]> means, int over, int under) {
    return means.stream()
        .mapToDouble(m -> under < 0 ? m[over] : m[over] / m[under])
        .toArray();
  }

  /**
   * The mean of the shares of {@code a} on one side and of {@code b} on the other, at the best threshold; 0.5 where they
   * are alike, 1 where they are apart.
   */
  static double bestThreshold(double[] a, double[] b) {
    double[] first = a.clone();
    double[] second = b.clone();
    Arrays.sort(first);
    Arrays.sort(second);
    double best = 0.5;
    int j = 0;
    int i = 0;
    while (i < first.length || j < second.length) {
      double next = Math.min(
          i < first.length ? first[i] : Double.POSITIVE_INFINITY,
          j < second.length ? second[j] : Double.POSITIVE_INFINITY);
      while (i < first.length && first[i] == next) {
        i++;
      }
      while (j < second.length && second[j] == next) {
        j++;
      }
      double below = ((double) i / first.length + 1 - (double) j / second.length) / 2;
      best = Math.max(best, Math.max(below, 1 - below));
    }
    return best;
  }
}
