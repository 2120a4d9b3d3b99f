/** Tie points, the models that are fitted to them, and what can be said of how far a model is to be trusted. */
package sharpkestrel.place.fit;
