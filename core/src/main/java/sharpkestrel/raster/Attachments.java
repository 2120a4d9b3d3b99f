package sharpkestrel.raster;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/**
 * What a raster carries beside its pixels, one value of each kind: sensor model, scene metadata, vertical datum.
 * Keyed by class, so that this package need not know the kinds.
 */
public final class Attachments {

  public static final Attachments NONE = new Attachments(Map.of());

  private final Map<Class<?>, Object> values;

  private Attachments(Map<Class<?>, Object> values) {
    this.values = values;
  }

  public <T> Optional<T> get(Class<T> kind) {
    return Optional.ofNullable(kind.cast(values.get(kind)));
  }

  public <T> Attachments with(Class<T> kind, T value) {
    Map<Class<?>, Object> copy = new LinkedHashMap<>(values);
    copy.put(kind, value);
    return new Attachments(Map.copyOf(copy));
  }

  /** With a value where there is one. */
  public <T> Attachments with(Class<T> kind, Optional<T> value) {
    return value.map(there -> with(kind, there)).orElse(this);
  }

  public Attachments without(Class<?> kind) {
    Map<Class<?>, Object> copy = new LinkedHashMap<>(values);
    copy.remove(kind);
    return new Attachments(Map.copyOf(copy));
  }
}
