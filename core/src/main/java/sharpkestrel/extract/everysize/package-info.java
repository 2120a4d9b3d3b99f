/** Every size: all nodes of a merge tree measured and scored at once, and the best set of them that do not overlap. */
package sharpkestrel.extract.everysize;
