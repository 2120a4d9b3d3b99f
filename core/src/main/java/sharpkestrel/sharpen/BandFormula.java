package sharpkestrel.sharpen;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeSet;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Expression;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * A formula over the bands of a scene, pixel by pixel (CQL2 arithmetic). Bands are called by their role's key, or by their
 * name in lower case with underscores. A test gives 1 and 0; what has no value, as where something is divided by 0, is
 * no-data.
 */
public final class BandFormula extends DerivedRaster {

  private final Raster scene;
  private final Expression formula;
  private final Map<String, Integer> bands;

  private BandFormula(Raster scene, Expression formula, Map<String, Integer> bands, String name) {
    super(
        scene.grid(),
        List.of(band(formula, name)),
        scene.attachments(),
        Zoom.POINTWISE.over(scene.zoom()));
    this.scene = scene;
    this.formula = formula;
    this.bands = bands;
  }

  private static Band band(Expression formula, String name) {
    return formula.isTruth()
        ? new Band(name, BandRole.OTHER, "", SampleType.UINT8, 255)
        : new Band(name, BandRole.OTHER, "", SampleType.FLOAT32, Double.NaN);
  }

  /**
   * @throws RasterException where the formula cannot be read or names what the scene has not; it says what there is
   */
  public static BandFormula of(Raster scene, String text, String name) {
    Map<String, Integer> known = names(scene);
    try {
      Expression formula = Cql2.parse(text);
      Map<String, Integer> used = new LinkedHashMap<>();
      for (String wanted : formula.names()) {
        Integer place = known.get(wanted.toLowerCase(Locale.ROOT));
        if (place == null) {
          throw new RasterException("The formula names '" + wanted
              + "', which the scene has not. It has: "
              + String.join(", ", new TreeSet<>(known.keySet()))
              + ".");
        }
        used.put(wanted, place);
      }
      if (used.isEmpty()) {
        throw new RasterException("The formula '" + text
            + "' names no band. The scene has: "
            + String.join(", ", new TreeSet<>(known.keySet()))
            + ".");
      }
      return new BandFormula(scene, formula, used, name);
    } catch (ExpressionException unreadable) {
      throw new RasterException(unreadable.getMessage(), unreadable);
    }
  }

  /** What the bands of a scene are called in formulas, and their places. */
  public static Map<String, Integer> names(Raster scene) {
    Map<String, Integer> names = new LinkedHashMap<>();
    for (int b = 0; b < scene.bands().size(); b++) {
      Band band = scene.bands().get(b);
      if (band.role() != BandRole.OTHER) {
        names.putIfAbsent(band.role().key(), b);
      }
      String own = band.name().strip().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_");
      names.putIfAbsent(own, b);
    }
    return names;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    float[][] planes = new float[scene.bands().size()][];
    bands.values().forEach(b -> planes[b] = new float[window.area()]);
    scene.read(level, window, planes, request);
    int width = window.width();
    List<Table.Column> columns = new ArrayList<>();
    for (int y = 0; y < window.height(); y++) {
      columns.clear();
      int from = y * width;
      bands.forEach((name, b) -> {
        double[] values = new double[width];
        for (int x = 0; x < width; x++) {
          values[x] = planes[b][from + x];
        }
        columns.add(new Table.Column(name, name, "", values));
      });
      double[] found = formula.evaluate(new Table(width, columns));
      for (int x = 0; x < width; x++) {
        target[0][from + x] = Double.isFinite(found[x]) ? (float) found[x] : Float.NaN;
      }
    }
  }
}
