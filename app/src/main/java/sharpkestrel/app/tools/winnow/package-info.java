/** A stack of tests that objects must pass. */
package sharpkestrel.app.tools.winnow;
