/** Segmentation: superpixels, the tree of their merging, and cuts of that tree at a grain. */
package sharpkestrel.segment;
