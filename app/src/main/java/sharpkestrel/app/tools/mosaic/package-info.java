/** Scenes laid together along seams. */
package sharpkestrel.app.tools.mosaic;
