package sharpkestrel.app.samples;

import org.locationtech.jts.geom.Geometry;

/**
 * A place that was given a class.
 *
 * @param outline in the coordinates of its {@link Ground}
 * @param scene name of the result it was labelled in
 */
public record Sample(Geometry outline, String ofClass, String scene) {

  /** Whether it has the same outline as another. */
  boolean liesAs(Geometry other) {
    return outline.getEnvelopeInternal().equals(other.getEnvelopeInternal())
        && outline.equalsTopo(other);
  }
}
