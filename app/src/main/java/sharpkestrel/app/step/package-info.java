/** The panel of any step, made from its declaration, and trying it in the patch. */
package sharpkestrel.app.step;
