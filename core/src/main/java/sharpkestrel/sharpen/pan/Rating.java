package sharpkestrel.sharpen.pan;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import sharpkestrel.io.Json;

/**
 * What a way of sharpening is worth on a scene.
 *
 * @param title of the method
 * @param method its name as a setting; empty for plain interpolation
 * @param ergas relative error over all bands, per cent of their means scaled by the ratio of pixel sizes (Wald 2000); 0 is
 *     best
 * @param angle mean spectral angle, degrees; 0 is best
 * @param q2n likeness of all bands at once; 1 is best
 * @param q likeness of each band
 * @param spectral distortion between bands at full resolution (Alparone et al. 2008); 0 is best
 * @param spatial distortion against the panchromatic band there
 * @param millis time it took at full resolution
 */
public record Rating(
    String title,
    String method,
    double ergas,
    double angle,
    double q2n,
    List<Double> q,
    double spectral,
    double spatial,
    long millis) {

  /** Quality without reference, {@code (1 - spectral) * (1 - spatial)}; 1 is best. */
  public double qnr() {
    return (1 - spectral) * (1 - spatial);
  }

  ObjectNode toJson() {
    ObjectNode node = Json.object();
    node.put("title", title).put("method", method);
    put(node, "ergas", ergas);
    put(node, "sam_degrees", angle);
    put(node, "q2n", q2n);
    ArrayNode bands = node.putArray("q");
    q.forEach(bands::add);
    put(node, "spectral_distortion", spectral);
    put(node, "spatial_distortion", spatial);
    put(node, "qnr", qnr());
    return node.put("millis", millis);
  }

  private static void put(ObjectNode node, String name, double value) {
    if (Double.isNaN(value)) {
      node.putNull(name);
    } else {
      node.put(name, value);
    }
  }
}
