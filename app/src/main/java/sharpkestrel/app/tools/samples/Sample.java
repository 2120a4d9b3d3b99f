package sharpkestrel.app.tools.samples;

import org.locationtech.jts.geom.Geometry;
import sharpkestrel.raster.CrsName;

/**
 * A place that was given a class.
 *
 * @param outline in the coordinates of {@code crs}; of a scene without a place in its pixels
 * @param scene name of the result it was labelled in
 */
record Sample(Geometry outline, CrsName crs, String ofClass, String scene) {}
