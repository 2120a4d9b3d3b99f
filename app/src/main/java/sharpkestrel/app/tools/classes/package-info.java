/** Clusters and classes looked at one by one, and called by names. */
package sharpkestrel.app.tools.classes;
