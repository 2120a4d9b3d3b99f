/** The window. */
package sharpkestrel.app;
