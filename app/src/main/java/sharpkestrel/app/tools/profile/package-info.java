/** Spectral profiles of places. */
package sharpkestrel.app.tools.profile;
