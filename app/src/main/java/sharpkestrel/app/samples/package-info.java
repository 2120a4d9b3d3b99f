/** The samples of a project: what was labelled on each ground, kept by where it lies, whichever tool labels. */
package sharpkestrel.app.samples;
