/** From pixels to outlines: tracing, simplifying, squaring. */
package sharpkestrel.outline;
