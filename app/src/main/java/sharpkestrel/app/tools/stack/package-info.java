/** Files of single bands made one scene. */
package sharpkestrel.app.tools.stack;
