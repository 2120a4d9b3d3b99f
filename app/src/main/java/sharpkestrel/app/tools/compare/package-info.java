/** Outlines against the truth. */
package sharpkestrel.app.tools.compare;
