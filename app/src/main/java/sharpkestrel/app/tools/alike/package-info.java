/** Objects like a few picked ones: ranked, shown small, accepted and rejected by keys. */
package sharpkestrel.app.tools.alike;
