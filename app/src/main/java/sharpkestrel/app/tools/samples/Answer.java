package sharpkestrel.app.tools.samples;

import java.util.List;
import java.util.Optional;
import sharpkestrel.extract.learner.Confusion;
import sharpkestrel.objects.ObjectSet;

/**
 * What the samples say of all objects.
 *
 * @param shares probabilities of the classes, object by object
 * @param sampleOf for each object the place of the class it was labelled, -1 for none
 * @param kept what was said of blocks that were kept back; empty while that is worked out, or where there are too few
 */
record Answer(
    ObjectSet objects,
    List<String> classes,
    float[] shares,
    int[] sampleOf,
    Optional<Confusion> kept) {

  /** The likeliest class of an object. */
  int most(int row) {
    return Confusion.most(shares, row * classes.size(), classes.size());
  }

  float share(int row, int ofClass) {
    return shares[row * classes.size() + ofClass];
  }

  /** How near the second class is to the first, 0 to 1. */
  double doubt(int row) {
    int most = most(row);
    float second = 0;
    for (int k = 0; k < classes.size(); k++) {
      second = k == most ? second : Math.max(second, share(row, k));
    }
    return most < 0 ? 1 : second / share(row, most);
  }

  int[] counts() {
    int[] counts = new int[classes.size()];
    for (int row = 0; row < objects.count(); row++) {
      if (most(row) >= 0) {
        counts[most(row)]++;
      }
    }
    return counts;
  }
}
