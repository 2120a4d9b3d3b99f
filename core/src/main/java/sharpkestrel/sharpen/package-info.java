/** Seeing what must be extracted: pan-sharpening and indices. */
package sharpkestrel.sharpen;
