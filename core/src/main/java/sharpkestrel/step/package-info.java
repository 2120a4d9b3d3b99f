/**
 * How a step declares itself: its inputs, settings and result. The panel, the command line, the run sheet and the
 * reference are all derived from these declarations by {@code flow}.
 */
package sharpkestrel.step;
