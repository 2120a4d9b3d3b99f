/** What is known of single pixels, and classes learned from it. */
package sharpkestrel.extract.pixels;
