/** How rasters are shown: bands, stretch, and the histogram behind it. */
package sharpkestrel.app.look;
