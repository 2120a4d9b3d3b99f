package sharpkestrel.check;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Locale;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.io.Json;
import sharpkestrel.io.Report;

/**
 * How found outlines agree with true ones.
 *
 * @param found outlines that count
 * @param truth true ones that count
 * @param matched pairs that overlap enough
 * @param meanIou of the matched pairs; NaN where there are none
 * @param areaError mean of (found - true) / true area of the matched pairs
 * @param missedOutlines the true outlines without a match
 * @param wrong places of the found outlines without a match
 */
public record Scores(
    int found,
    int truth,
    int matched,
    double meanIou,
    double areaError,
    double leastIou,
    List<Geometry> missedOutlines,
    List<Integer> wrong)
    implements Report {

  public double precision() {
    return found == 0 ? Double.NaN : (double) matched / found;
  }

  public double recall() {
    return truth == 0 ? Double.NaN : (double) matched / truth;
  }

  public double f1() {
    return found + truth == 0 ? Double.NaN : 2.0 * matched / (found + truth);
  }

  @Override
  public String toText() {
    return String.format(
        Locale.ROOT,
        "matched %d of %d true, %d found (IoU at least %.2f)%n"
            + "precision %.3f   recall %.3f   F1 %.3f%nmean IoU %.3f   area error %+.1f %%",
        matched,
        truth,
        found,
        leastIou,
        precision(),
        recall(),
        f1(),
        meanIou,
        100 * areaError);
  }

  @Override
  public ObjectNode toJson() {
    ObjectNode node = Json.object();
    node.put("found", found).put("truth", truth).put("matched", matched);
    node.put("least_iou", leastIou);
    put(node, "precision", precision());
    put(node, "recall", recall());
    put(node, "f1", f1());
    put(node, "mean_iou", meanIou);
    put(node, "area_error", areaError);
    return node;
  }

  private static void put(ObjectNode node, String name, double value) {
    if (Double.isNaN(value)) {
      node.putNull(name);
    } else {
      node.put(name, value);
    }
  }
}
