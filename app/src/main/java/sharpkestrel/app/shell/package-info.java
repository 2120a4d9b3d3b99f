/** The window's frame: top bar, trail, status, keys. */
package sharpkestrel.app.shell;
