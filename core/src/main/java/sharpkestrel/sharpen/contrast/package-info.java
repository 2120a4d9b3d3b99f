/** Local contrast: deep shadow and bright roof made readable at once. */
package sharpkestrel.sharpen.contrast;
