/** Sensors: where an image point looks, where a ground point is seen, and what optics and detectors do. */
package sharpkestrel.demo.sensor;
