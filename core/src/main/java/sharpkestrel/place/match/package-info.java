/** Finds points that a scene and a reference share, spread over both, to a fraction of a pixel. */
package sharpkestrel.place.match;
