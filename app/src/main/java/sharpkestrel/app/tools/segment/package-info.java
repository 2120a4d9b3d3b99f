/** Segmentation and the grain of its tree. */
package sharpkestrel.app.tools.segment;
