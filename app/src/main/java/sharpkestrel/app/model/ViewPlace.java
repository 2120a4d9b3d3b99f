package sharpkestrel.app.model;

/**
 * Where pane A looks, in the coordinates of what it shows: those of the ground, northing negated, or pixels of a raw scene.
 *
 * @param x of its middle
 * @param y of its middle, downwards
 * @param unitsPerPixel how many of them lie in a pixel of the screen
 */
public record ViewPlace(double x, double y, double unitsPerPixel) {}
