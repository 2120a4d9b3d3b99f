package sharpkestrel.segment.learn;

import java.util.Arrays;
import java.util.List;
import java.util.random.RandomGenerator;

/**
 * A small network that says from a pair's features how surely it is of one kind: two hidden layers of leaky rectifiers and
 * one output, the logarithm of the odds. Features are brought to mean 0 and spread 1 and kept within {@value #BOUND} of
 * these, so that what it has never seen cannot carry it away; one that is not a number is not known, and counts as the mean.
 */
public final class Network {

  static final float LEAK = 0.05f;
  private static final float BOUND = 5;

  /** A fully connected layer; {@code weights} row by row of its inputs. */
  record Layer(int inputs, int outputs, float[] weights, float[] offsets) {

    Layer {
      if (weights.length != inputs * outputs || offsets.length != outputs) {
        throw new IllegalArgumentException("A layer of " + inputs + " to " + outputs + " with "
            + weights.length + " weights and " + offsets.length + " offsets.");
      }
    }

    /** Weights as large as keeps spreads through leaky rectifiers (He, Zhang, Ren and Sun 2015, ICCV, 1026-1034). */
    static Layer random(int inputs, int outputs, RandomGenerator random) {
      float[] weights = new float[inputs * outputs];
      double spread = Math.sqrt(2.0 / inputs);
      for (int i = 0; i < weights.length; i++) {
        weights[i] = (float) (random.nextGaussian() * spread);
      }
      return new Layer(inputs, outputs, weights, new float[outputs]);
    }

    /**
     * @param in (input) numbers of the layer before
     * @param out (output) weighted sums, before any rectifier
     */
    void forward(float[] in, float[] out) {
      System.arraycopy(offsets, 0, out, 0, outputs);
      int i = 0;
      // four rows at a time: sums are read and written once for all four
      for (; i + 3 < inputs; i += 4) {
        float a = in[i];
        float b = in[i + 1];
        float c = in[i + 2];
        float d = in[i + 3];
        int row = i * outputs;
        for (int j = 0; j < outputs; j++) {
          out[j] += a * weights[row + j]
              + b * weights[row + outputs + j]
              + c * weights[row + 2 * outputs + j]
              + d * weights[row + 3 * outputs + j];
        }
      }
      for (; i < inputs; i++) {
        for (int j = 0; j < outputs; j++) {
          out[j] += in[i] * weights[i * outputs + j];
        }
      }
    }
  }

  final float[] means;

  /** One over the spread. */
  final float[] scales;

  final List<Layer> layers;

  Network(float[] means, float[] scales, List<Layer> layers) {
    this.means = means;
    this.scales = scales;
    this.layers = List.copyOf(layers);
    if (scales.length != means.length
        || layers.getFirst().inputs != means.length
        || layers.getLast().outputs != 1) {
      throw new IllegalArgumentException("Layers do not fit " + means.length + " features.");
    }
    for (int k = 1; k < layers.size(); k++) {
      if (layers.get(k).inputs != layers.get(k - 1).outputs) {
        throw new IllegalArgumentException("Layer " + k + " does not fit the one before.");
      }
    }
  }

  public int features() {
    return means.length;
  }

  /** Room for the numbers of all layers, one for each thread that asks. */
  public final class Work {

    /** The features as they enter, then what each layer gives; rectified but for the last. */
    final float[][] values = new float[1 + layers.size()][];

    public Work() {
      values[0] = new float[means.length];
      for (int k = 0; k < layers.size(); k++) {
        values[k + 1] = new float[layers.get(k).outputs()];
      }
    }

    /**
     * The logarithm of the odds that a pair is of one kind.
     *
     * @param pair (input) its features, as they are; NaN where one is not known
     */
    public float logOdds(float[] pair) {
      float[] first = values[0];
      for (int i = 0; i < first.length; i++) {
        float v = (pair[i] - means[i]) * scales[i];
        first[i] = Float.isNaN(v) ? 0 : Math.clamp(v, -BOUND, BOUND);
      }
      int last = layers.size() - 1;
      for (int k = 0; k <= last; k++) {
        float[] out = values[k + 1];
        layers.get(k).forward(values[k], out);
        for (int j = 0; k < last && j < out.length; j++) {
          out[j] = out[j] > 0 ? out[j] : LEAK * out[j];
        }
      }
      return values[last + 1][0];
    }
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Network network
        && Arrays.equals(means, network.means)
        && Arrays.equals(scales, network.scales)
        && layers.size() == network.layers.size()
        && java.util.stream.IntStream.range(0, layers.size())
            .allMatch(k -> Arrays.equals(layers.get(k).weights, network.layers.get(k).weights)
                && Arrays.equals(layers.get(k).offsets, network.layers.get(k).offsets));
  }

  @Override
  public int hashCode() {
    return Arrays.hashCode(means);
  }
}
