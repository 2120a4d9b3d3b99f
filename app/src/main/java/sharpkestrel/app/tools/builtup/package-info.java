/** The built-up index over the picture. */
package sharpkestrel.app.tools.builtup;
