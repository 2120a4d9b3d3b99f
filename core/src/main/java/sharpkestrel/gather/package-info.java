/** What was delivered: parts assembled into scenes, numbers into reflectance, areas cut out. */
package sharpkestrel.gather;
