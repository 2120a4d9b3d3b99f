package sharpkestrel.raster;

import java.util.Collections;
import java.util.Map;
import java.util.WeakHashMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;

/**
 * What is worked out of a whole raster once for as long as it is in use: its statistics, its relation to another. A setting
 * tried again then costs what it changes, not another pass over the scene.
 */
public final class Kept {

  private static final Map<Raster, Map<Object, Object>> VALUES =
      Collections.synchronizedMap(new WeakHashMap<>());

  private Kept() {}

  /**
   * @param owner the raster with which the value is forgotten
   * @param what tells it from other values of the same owner, by equality
   * @param maker makes it where it is not kept yet
   */
  @SuppressWarnings("unchecked")
  public static <T> T of(Raster owner, Object what, Supplier<T> maker) {
    Map<Object, Object> values = VALUES.computeIfAbsent(owner, o -> new ConcurrentHashMap<>());
    Object found = values.get(what);
    if (found == null) {
      found = maker.get();
      values.put(what, found);
    }
    return (T) found;
  }
}
