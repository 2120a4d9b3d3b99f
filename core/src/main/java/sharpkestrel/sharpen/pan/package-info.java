/** Pan-sharpening: resampling between the two grids, fits of one scene to the other, methods, and what they are worth. */
package sharpkestrel.sharpen.pan;
