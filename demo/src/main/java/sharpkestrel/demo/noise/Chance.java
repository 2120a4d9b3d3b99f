package sharpkestrel.demo.noise;

import java.util.List;
import java.util.Random;

/**
 * Streams of chance, each of its own key, so that what one generator draws never shifts what another does: a world
 * keeps its town when its lakes are made otherwise.
 */
public final class Chance {

  private final Random random;

  private Chance(long state) {
    random = new Random(state);
  }

  /** The stream of a seed and a key, e.g. a generator's number and the cell of ground it works on. */
  public static Chance of(long seed, long... key) {
    long state = Noise.mix(seed * 0x9E3779B97F4A7C15L + 0x51ED270B9F1D3A77L);
    for (long part : key) {
      state = Noise.mix(state ^ Noise.mix(part + 0x632BE59BD9B4E019L));
    }
    return new Chance(state);
  }

  public double unit() {
    return random.nextDouble();
  }

  public double between(double low, double high) {
    return low + (high - low) * random.nextDouble();
  }

  public double gaussian() {
    return random.nextGaussian();
  }

  public boolean happens(double probability) {
    return random.nextDouble() < probability;
  }

  /** A whole number from {@code low} to {@code high}, both included. */
  public int whole(int low, int high) {
    return low + random.nextInt(high - low + 1);
  }

  /** An index, each as likely as its weight. */
  public int weighted(double... weights) {
    double sum = 0;
    for (double weight : weights) {
      sum += weight;
    }
    double left = sum * random.nextDouble();
    for (int i = 0; i < weights.length; i++) {
      left -= weights[i];
      if (left < 0) {
        return i;
      }
    }
    return weights.length - 1;
  }

  /** One of some kinds, each as likely as its weight. */
  public <T> T pick(List<T> kinds, double... weights) {
    return kinds.get(weighted(weights));
  }
}
