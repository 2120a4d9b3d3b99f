/** Objects picked out of a merge tree by clicks. */
package sharpkestrel.app.tools.pick;
