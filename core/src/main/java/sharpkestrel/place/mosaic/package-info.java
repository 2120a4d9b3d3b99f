/** Several placed scenes as one: footprints, balance of tone, seamlines, and the rules by which they overlap. */
package sharpkestrel.place.mosaic;
