/** Ways of sharpening, rated on the trial patch. */
package sharpkestrel.app.tools.pansharpen;
