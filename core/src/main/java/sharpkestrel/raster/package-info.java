/** Grids, bands and lazy rasters; tiles, their cache and their parallel runs; resampling and statistics. */
package sharpkestrel.raster;
