package sharpkestrel.segment;

import java.util.Optional;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.segment.learn.Network;

/**
 * What merging a pair costs where something has been learned:
 *
 * <pre>  sqrt(plain cost) * odds against the two being parts of one thing</pre>
 *
 * <p>The plain cost alone does not know that the lit and the shaded side of a roof belong together and the shaded side and
 * its shadow do not; the odds alone are much the same for all that is surely one, and leave its order to chance.
 */
final class LearnedCosts {

  /** Added to the plain cost, so that what costs nothing has a logarithm. */
  static final double LEAST = 1e-4;

  private final PairEvidence evidence;
  private final Rims rims;
  private final Optional<Network.Work> network;
  private final float[] pair = new float[PairEvidence.NAMES.size()];

  /**
   * @param model none yet in the first round of learning: costs are then the plain ones
   */
  LearnedCosts(PairEvidence evidence, Rims rims, Optional<MergingModel> model) {
    this.evidence = evidence;
    this.rims = rims;
    network = model.map(learned -> {
      if (!learned.features().equals(PairEvidence.NAMES)) {
        throw new RasterException(
            "This merging model looks at other features than this version does. Learn it again with"
                + " 'learn-merging'.");
      }
      return learned.network().new Work();
    });
  }

  Rims rims() {
    return rims;
  }

  /**
   * @param first region at the edge's first end
   */
  float of(int edge, int first, int second, int[] count, double plain) {
    if (network.isEmpty()) {
      return (float) plain;
    }
    evidence.of(edge, first, second, count, plain, pair);
    return (float) (Math.sqrt(plain + LEAST) * Math.exp(-network.get().logOdds(pair)));
  }
}
