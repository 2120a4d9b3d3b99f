package sharpkestrel.app.samples;

import java.util.Locale;
import sharpkestrel.app.model.Result;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.CrsName;

/**
 * What places are told in: a coordinate system, for all scenes that lie in it; or the pixels of one scene that has no place.
 *
 * @param scene name of the result that a scene without a place came from; empty for those with one
 */
public record Ground(CrsName crs, String scene) {

  private static final int LONGEST = 40;

  /** That of the picture that a result shows. */
  public static Ground of(Result result) {
    CrsName crs = result.backdrop().grid().crs();
    return new Ground(crs, crs.isKnown() ? "" : result.source().name());
  }

  /** That of the objects that a result holds. */
  public static Ground of(Result result, ObjectSet objects) {
    CrsName crs = objects.labels().grid().crs();
    return new Ground(crs, crs.isKnown() ? "" : result.source().name());
  }

  /** As part of a file's name; long texts, and names of scenes that read the same, have a number that tells them apart. */
  String slug() {
    String text = crs.isKnown() ? crs.text() : "pixels-of-" + scene;
    String plain = text.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
    boolean isPlain = crs.isKnown() || plain.equals("pixels-of-" + scene);
    return plain.length() <= LONGEST && isPlain
        ? plain
        : plain.substring(0, Math.min(LONGEST, plain.length())) + "-"
            + Integer.toHexString(text.hashCode());
  }
}
