/** Labelling by example: the class list, samples in the picture, the answer everywhere at once, and being asked. */
package sharpkestrel.app.tools.samples;
