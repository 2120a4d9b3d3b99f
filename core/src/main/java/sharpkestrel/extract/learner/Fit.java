package sharpkestrel.extract.learner;

import java.util.List;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;

/**
 * A number that has been learned from features, by boosted trees on squared errors.
 *
 * @param features that it looks at, in order
 */
public record Fit(List<String> features, Trees trees) {

  private static final int CHUNK = 2048;

  /**
   * @param targets for each example the number
   */
  public static Fit learn(Examples examples, float[] targets, long seed, Job job) {
    Trees trees = BoostingGrower.grow(
        examples,
        Bins.of(examples, job),
        BoostingGrower.Loss.SQUARED,
        targets,
        BoostingGrower.Settings.USUAL,
        seed,
        job);
    return new Fit(examples.features(), trees);
  }

  /**
   * @param names of the columns, those it looks at among them
   */
  public float[] of(List<String> names, float[][] columns, Job job) {
    float[][] own = Classifier.choose(features, names, columns);
    int rows = own.length == 0 ? 0 : own[0].length;
    float[] numbers = new float[rows];
    Parallel.run(Math.ceilDiv(rows, CHUNK), job, chunk -> {
      float[] row = new float[own.length];
      float[] out = new float[1];
      for (int i = chunk * CHUNK; i < Math.min(rows, (chunk + 1) * CHUNK); i++) {
        for (int f = 0; f < row.length; f++) {
          row[f] = own[f][i];
        }
        trees.sum(row, out);
        numbers[i] = out[0];
      }
    });
    return numbers;
  }
}
