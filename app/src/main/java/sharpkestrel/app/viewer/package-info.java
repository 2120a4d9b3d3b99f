/**
 * The picture: tiles stretched and coloured off the interface thread, composed into one buffer a frame.
 */
package sharpkestrel.app.viewer;
