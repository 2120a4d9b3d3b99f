/** Spectral profiles of places, and how well they can be told apart. */
package sharpkestrel.sharpen.profile;
