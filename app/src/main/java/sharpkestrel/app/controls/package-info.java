/** Controls that any panel may use; they know no project. */
package sharpkestrel.app.controls;
