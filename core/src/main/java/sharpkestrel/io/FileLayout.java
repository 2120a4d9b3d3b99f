package sharpkestrel.io;

/**
 * How a raster lies in its file, for people.
 *
 * @param blocks "tiles of 512 x 512, bands by pixel"
 * @param packing "deflate"
 * @param overviews in the file or beside it, usable ones or not
 * @param images of their own in the file
 */
public record FileLayout(String blocks, String packing, int overviews, boolean isBig, int images) {}
