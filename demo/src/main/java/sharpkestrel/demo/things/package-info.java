/** What stands on the land and floats on the water: solids, and the plans that put them there. */
package sharpkestrel.demo.things;
