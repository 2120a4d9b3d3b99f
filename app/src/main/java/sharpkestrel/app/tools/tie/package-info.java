/** Tie points between a scene and what it is registered to. */
package sharpkestrel.app.tools.tie;
