package sharpkestrel.geo;

/**
 * How much a mosaic's scenes differ along its seams: the median over blocks of ground, and over bands, of the difference of
 * both scenes' medians there, in percent of the range of values; shadows are left out.
 *
 * @param before with the scenes as they came, one laid over the other
 * @param after balanced, along the seams that were found or drawn; NaN where no block could be compared
 * @param blocks compared along the seams
 * @param metres in a side of a block
 */
public record SeamVisibility(double before, double after, int blocks, double metres) {}
