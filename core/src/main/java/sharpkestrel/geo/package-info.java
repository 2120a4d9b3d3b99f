/** Places on earth: coordinate reference systems, rational sensor models, heights and their datum, acquisitions. */
package sharpkestrel.geo;
