package sharpkestrel.io;

import java.util.Optional;
import sharpkestrel.geo.Placement;

/** How a scene was placed as named items of a GeoTIFF, so that its errors travel with it. */
final class PlacementItems {

  private static final String MODEL = "placement:model";
  private static final String POINTS = "placement:points";
  private static final String FIT = "placement:rms_fit";
  private static final String LEFT_OUT = "placement:rms_left_out";
  private static final String CHECK_POINTS = "placement:check_points";
  private static final String CHECK = "placement:rms_check";
  private static final String METRES = "placement:metres_in_pixel";

  private PlacementItems() {}

  static void write(ItemsXml items, Placement placement) {
    items.put(ItemsXml.FILE, MODEL, placement.model());
    items.put(ItemsXml.FILE, POINTS, Integer.toString(placement.points()));
    items.put(ItemsXml.FILE, FIT, Double.toString(placement.fit()));
    items.put(ItemsXml.FILE, LEFT_OUT, Double.toString(placement.leftOut()));
    items.put(ItemsXml.FILE, CHECK_POINTS, Integer.toString(placement.checkPoints()));
    items.put(ItemsXml.FILE, CHECK, Double.toString(placement.check()));
    items.put(ItemsXml.FILE, METRES, Double.toString(placement.metres()));
  }

  static Optional<Placement> read(ItemsXml items) {
    return items
        .get(ItemsXml.FILE, MODEL)
        .map(model -> new Placement(
            model,
            (int) items.number(POINTS, 0),
            items.number(FIT, Double.NaN),
            items.number(LEFT_OUT, Double.NaN),
            (int) items.number(CHECK_POINTS, 0),
            items.number(CHECK, Double.NaN),
            items.number(METRES, Double.NaN)));
  }
}
