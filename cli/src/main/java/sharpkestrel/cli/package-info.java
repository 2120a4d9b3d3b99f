/** The command line, derived from the steps. */
package sharpkestrel.cli;
