/** The land: coast, relief, waters, roads and parcels, as functions of the place and as tiles of nodes. */
package sharpkestrel.demo.ground;
