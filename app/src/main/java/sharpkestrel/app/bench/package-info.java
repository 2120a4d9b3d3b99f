/** The wide panel under the picture: the tool in hand, its evidence beside its settings. */
package sharpkestrel.app.bench;
