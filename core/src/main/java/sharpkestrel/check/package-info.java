/** How wrong a result is, and where. */
package sharpkestrel.check;
