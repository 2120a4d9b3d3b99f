package sharpkestrel.sharpen.pan;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Locale;
import sharpkestrel.io.Json;
import sharpkestrel.io.Report;

/**
 * Ways of sharpening one scene, the best first by their error at reduced resolution.
 *
 * @param bands names of the bands
 * @param pixels multispectral pixels that were compared
 */
public record Ratings(List<Rating> rows, List<String> bands, long pixels) implements Report {

  @Override
  public String toText() {
    StringBuilder text = new StringBuilder(String.format(
        Locale.ROOT,
        "%-28s %7s %7s %7s %9s %9s %7s   Q of %s%n",
        "method",
        "ERGAS",
        "SAM",
        "Q2n",
        "D lambda",
        "D s",
        "QNR",
        String.join(", ", bands)));
    for (Rating row : rows) {
      text.append(String.format(
          Locale.ROOT,
          "%-28s %7.3f %7.3f %7.4f %9.4f %9.4f %7.4f  ",
          row.title(),
          row.ergas(),
          row.angle(),
          row.q2n(),
          row.spectral(),
          row.spatial(),
          row.qnr()));
      row.q().forEach(q -> text.append(String.format(Locale.ROOT, " %.3f", q)));
      text.append(System.lineSeparator());
    }
    return text.append(String.format(
            Locale.ROOT,
            "ERGAS, SAM (degrees) and Q: the scene reduced once more, sharpened, and compared with itself; D and QNR: as it"
                + " is. %d multispectral pixels.",
            pixels))
        .toString();
  }

  @Override
  public ObjectNode toJson() {
    ObjectNode node = Json.object();
    node.put("pixels", pixels);
    ArrayNode list = node.putArray("methods");
    rows.forEach(row -> list.add(row.toJson()));
    return node;
  }
}
