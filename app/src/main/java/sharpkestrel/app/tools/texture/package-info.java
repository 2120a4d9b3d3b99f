/** Texture in a moving window. */
package sharpkestrel.app.tools.texture;
