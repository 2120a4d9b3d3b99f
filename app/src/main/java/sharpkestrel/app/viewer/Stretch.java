package sharpkestrel.app.viewer;

/** Low and high ends for red, green and blue, between which values run from dark to bright. */
record Stretch(float[] low, float[] high) {}
