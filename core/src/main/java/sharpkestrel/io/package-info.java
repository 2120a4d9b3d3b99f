/** Files in and out: GeoTIFF, pictures with world files, RPC text, STAC items, GeoPackage and GeoJSON. */
package sharpkestrel.io;
