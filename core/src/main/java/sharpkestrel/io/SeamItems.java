package sharpkestrel.io;

import java.util.Optional;
import sharpkestrel.geo.SeamVisibility;

/** How much the seams of a mosaic show, as named items of a GeoTIFF. */
final class SeamItems {

  private static final String BEFORE = "seams:difference_before_percent";
  private static final String AFTER = "seams:difference_after_percent";
  private static final String BLOCKS = "seams:blocks";
  private static final String METRES = "seams:block_metres";

  private SeamItems() {}

  static void write(ItemsXml items, SeamVisibility seams) {
    items.put(ItemsXml.FILE, BEFORE, Double.toString(seams.before()));
    items.put(ItemsXml.FILE, AFTER, Double.toString(seams.after()));
    items.put(ItemsXml.FILE, BLOCKS, Integer.toString(seams.blocks()));
    items.put(ItemsXml.FILE, METRES, Double.toString(seams.metres()));
  }

  static Optional<SeamVisibility> read(ItemsXml items) {
    if (items.get(ItemsXml.FILE, AFTER).isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(new SeamVisibility(
        items.number(BEFORE, Double.NaN),
        items.number(AFTER, Double.NaN),
        (int) items.number(BLOCKS, 0),
        items.number(METRES, Double.NaN)));
  }
}
