package sharpkestrel.demo.truth;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.things.Things;
import sharpkestrel.raster.Window;

/**
 * How well one threshold on one band, or on the ratio of two, tells pixels of roofs from all others: without blur and noise, so that it
 * is no easier than in the scene itself.
 */
public final class RoofsByOneNumber {

  private static final int WINDOWS = 500;
  private static final int SIDE = 8;

  /**
   * The best there is.
   *
   * @param feature the band, or one over another
   * @param share of the pixels that are roof
   */
  public record Best(String feature, double f1, double share) {}

  private final List<double[]> numbers = new ArrayList<>();
  private final List<Boolean> roof = new ArrayList<>();
  private final List<String> names;

  /**
   * @param undulation metres from the ellipsoid up to the geoid
   */
  public RoofsByOneNumber(Scene scene, Ground ground, Things things, double undulation) {
    Exposure exposure = new Exposure(scene, ground, things, undulation);
    names = new ArrayList<>();
    scene.instrument().pan().ifPresent(pan -> names.add(pan.name()));
    scene.instrument().bands().forEach(band -> names.add(band.name()));
    Chance chance = Chance.of(ground.seed(), 91, 1);
    int most = scene.sensor().width() - SIDE;
    for (int k = 0; k < WINDOWS; k++) {
      Window window = new Window(chance.whole(0, most), chance.whole(0, most), SIDE, SIDE);
      float[][] ideal = exposure.ideal(window);
      float[] isRoof = exposure.covered(window, material -> material.isRoof() ? 1 : 0)[0];
      for (int i = 0; i < window.area(); i++) {
        double[] pixel = new double[ideal.length];
        for (int b = 0; b < pixel.length; b++) {
          pixel[b] = ideal[b][i];
        }
        numbers.add(pixel);
        roof.add(isRoof[i] > 0);
      }
    }
  }

  public Best best() {
    long roofs = roof.stream().filter(is -> is).count();
    Best best = new Best("", 0, (double) roofs / roof.size());
    for (int over = 0; over < names.size(); over++) {
      for (int under = -1; under < names.size(); under++) {
        if (under != over) {
          double f1 = f1(over, under, roofs);
          if (f1 > best.f1) {
            String name = names.get(over) + (under < 0 ? "" : " / " + names.get(under));
            best = new Best(name, f1, best.share);
          }
        }
      }
    }
    return best;
  }

  /** The best F1 of all that lies above a threshold, and of all below. */
  private double f1(int over, int under, long roofs) {
    double[] value = new double[numbers.size()];
    for (int i = 0; i < value.length; i++) {
      double[] pixel = numbers.get(i);
      value[i] = under < 0 ? pixel[over] : pixel[over] / Math.max(1, pixel[under]);
    }
    Integer[] order = new Integer[value.length];
    Arrays.setAll(order, i -> i);
    Arrays.sort(order, Comparator.comparingDouble(i -> value[i]));
    double best = 0;
    long below = 0;
    for (int i = 0; i < order.length; i++) {
      below += roof.get(order[i]) ? 1 : 0;
      long above = roofs - below;
      best = Math.max(best, 2.0 * below / (i + 1 + roofs));
      best = Math.max(best, 2.0 * above / (order.length - i - 1 + roofs));
    }
    return best;
  }
}
