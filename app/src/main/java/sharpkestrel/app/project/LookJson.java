package sharpkestrel.app.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.ObjectStyle;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.raster.BandRole;

/** Looks of one's own, and how objects are drawn, as they stand in a project's file. */
final class LookJson {

  private LookJson() {}

  static void write(List<Look> looks, ArrayNode list) {
    for (Look look : looks) {
      ObjectNode node = list.addObject().put("name", look.name());
      ArrayNode roles = node.putArray("roles");
      look.roles().forEach(role -> roles.add(role.key()));
      node.put("ramp", look.ramp());
      StretchRule rule = look.stretch();
      ObjectNode stretch = node.putObject("stretch");
      stretch.put("kind", rule.kind().name().toLowerCase(Locale.ROOT));
      stretch.put("low", rule.low()).put("high", rule.high());
      stretch.put("from_view", rule.fromView()).put("linked", rule.linked());
      stretch.put("gamma", rule.gamma());
      if (rule.ends() != null) {
        ArrayNode low = stretch.putArray("low_ends");
        ArrayNode high = stretch.putArray("high_ends");
        for (int c = 0; c < 3; c++) {
          low.add(rule.ends().low()[c]);
          high.add(rule.ends().high()[c]);
        }
      }
    }
  }

  static void write(ObjectStyle style, ObjectNode node) {
    node.put("which", style.which().name().toLowerCase(Locale.ROOT));
    node.put("width", style.width()).put("opacity", style.opacity());
    node.put("fill", style.fill().name().toLowerCase(Locale.ROOT));
    node.put("fill_opacity", style.strength());
  }

  /** The usual style where it cannot be understood. */
  static ObjectStyle style(JsonNode node) {
    try {
      return new ObjectStyle(
          ObjectStyle.Which.valueOf(node.path("which").asText().toUpperCase(Locale.ROOT)),
          node.path("width").asInt(),
          node.path("opacity").asDouble(),
          ObjectStyle.Fill.valueOf(node.path("fill").asText().toUpperCase(Locale.ROOT)),
          node.path("fill_opacity").asDouble(ObjectStyle.AS_MADE));
    } catch (IllegalArgumentException unknown) {
      return ObjectStyle.INITIAL;
    }
  }

  /** What cannot be understood is left out. */
  static List<Look> read(JsonNode list) {
    List<Look> looks = new ArrayList<>();
    for (JsonNode node : list) {
      List<BandRole> roles = new ArrayList<>();
      node.path("roles").forEach(role -> roles.add(BandRole.guess(role.asText())));
      JsonNode stretch = node.path("stretch");
      try {
        StretchRule.Kind kind =
            StretchRule.Kind.valueOf(stretch.path("kind").asText().toUpperCase(Locale.ROOT));
        StretchRule rule = new StretchRule(
            kind,
            stretch.path("low").asDouble(1),
            stretch.path("high").asDouble(99),
            stretch.path("from_view").asBoolean(),
            stretch.path("linked").asBoolean(),
            stretch.path("gamma").asDouble(StretchRule.USUAL_GAMMA),
            ends(stretch));
        boolean whole =
            !roles.isEmpty() && (kind != StretchRule.Kind.BY_HAND || rule.ends() != null);
        if (whole) {
          looks.add(new Look(
              node.path("name").asText(), roles, rule, node.path("ramp").asBoolean()));
        }
      } catch (IllegalArgumentException unknownKind) {
        // of another version; the project opens without this look
      }
    }
    return looks;
  }

  private static StretchRule.Ends ends(JsonNode stretch) {
    JsonNode low = stretch.path("low_ends");
    JsonNode high = stretch.path("high_ends");
    if (low.size() != 3 || high.size() != 3) {
      return null;
    }
    double[][] ends = new double[2][3];
    for (int c = 0; c < 3; c++) {
      ends[0][c] = low.get(c).asDouble();
      ends[1][c] = high.get(c).asDouble();
    }
    return new StretchRule.Ends(ends[0], ends[1]);
  }
}
