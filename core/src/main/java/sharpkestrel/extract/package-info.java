/** Which objects are what the analyst is after, and their outlines. */
package sharpkestrel.extract;
