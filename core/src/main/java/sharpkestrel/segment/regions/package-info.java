/** Ways of dividing a scene into connected regions, on which the merge tree is built. */
package sharpkestrel.segment.regions;
