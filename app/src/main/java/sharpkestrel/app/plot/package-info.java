/** Plots: axes, marks, and what is under the mouse; they know no project. */
package sharpkestrel.app.plot;
