/** Texture in a moving window: statistics of values, and of pairs of grey levels. */
package sharpkestrel.sharpen.texture;
